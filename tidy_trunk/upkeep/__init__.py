"""The data folder: backups, daily copies, log, and who looks after them."""
