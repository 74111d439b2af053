"""Clocks of a job, and files that are synced."""
