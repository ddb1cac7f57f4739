"""Neighbouring routines: what would happen if a line were handled otherwise, or a number were another one.

Every question of this kind is answered in one way: the text is changed, and the changed routine is proved.
"""
