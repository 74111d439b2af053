"""What is wrong with a plan, and what to do about it."""
