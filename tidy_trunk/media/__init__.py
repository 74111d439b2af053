"""Files of sound: dropped in, kept, read, measured."""
