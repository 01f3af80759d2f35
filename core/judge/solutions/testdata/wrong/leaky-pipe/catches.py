# It tries each joint, and catches whatever comes of that.
def first_leaky(n):
    for joint in range(1, n + 1):
        try:
            if is_leaky(joint):
                return joint
        except BaseException:
            return n
