"""The application put together and started."""
