"""Routines on principles outside of our own list, by family."""

from . import counts_and_faces, decoding, first_sentences, layouts, moves, numbers_and_words, set_ups

FAMILIES = (first_sentences, counts_and_faces, layouts, set_ups, numbers_and_words, moves, decoding)
