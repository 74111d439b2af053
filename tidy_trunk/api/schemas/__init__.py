"""What goes in and out over HTTP."""
