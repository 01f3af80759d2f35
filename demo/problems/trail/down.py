# Wrong: looks at trails that begin at the main camp.
def warmest_trail(main):
    if main is None:
        return 0
    return main.val + max(0, warmest_trail(main.left), warmest_trail(main.right))
