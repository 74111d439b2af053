"""What takes long, in processes of its own."""
