"""Tidy Trunk: cable runs, levels and sync for location sound."""

__version__ = "0.1.0"
