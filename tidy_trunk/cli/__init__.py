"""The command line: thin callers of the core and the services."""
