# By a thread that holds the lock.
import sys, threading
n = int(input())


def show():
    for i in range(1, n + 1):
        sys.stdout.write("day %d: %d\n" % (i, i * 7 % 40 - 20))


t = threading.Thread(target=show)
t.start()
t.join()
