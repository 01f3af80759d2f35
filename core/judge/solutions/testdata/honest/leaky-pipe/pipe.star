def is_leaky(case, joint):
    return joint >= case.first
