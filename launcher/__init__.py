"""Setting up: system packages, Python environment, front end. Standard library only, as it runs before anything is there."""
