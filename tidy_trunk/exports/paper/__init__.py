"""Sheets of paper as PDF."""

from tidy_trunk.exports.paper.sheet import PAPERS, Column, Sheet

__all__ = ["PAPERS", "Column", "Sheet"]
