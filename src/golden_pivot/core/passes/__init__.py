"""What is done to a program between lowering and search: one pass a module, each a function of a program to a program.

No pass changes what any claim comes to, on how many paths, or where a card lands. In order:

    reordering      choices as late, sums as early, heaps joined as early as can be
    check_hoisting  claims settled as early as can be
    liveness        what may be forgotten behind each instruction
"""
