"""Sheets to print: set-up, cues and reset, as one neutral document each, written as Markdown or PDF."""
