"""Files of recorders and cameras, synced with each other."""
