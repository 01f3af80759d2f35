def talk(case, say, hear):
    for i in range(case.ints[0]):
        say("probe")
        if hear() != "probe":
            return reject("that was no echo")
    return accept()
