"""What was worked out, as it is shown: by screens, by `--json`, and in the store."""
