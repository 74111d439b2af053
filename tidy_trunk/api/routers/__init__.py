"""Routers: parse, one service call, shape."""
