# It tries each joint, which is too often.
def first_leaky(n):
    for joint in range(1, n + 1):
        if isLeaky(joint): return joint
