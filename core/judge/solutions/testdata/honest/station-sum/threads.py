# A thread with a large stack, and a daemon that never ends.
import sys, threading, time
threading.stack_size(64 << 20)
sys.setrecursionlimit(1 << 20)


def down(values, i=0):
    return 0 if i == len(values) else values[i] + down(values, i + 1)


def main():
    print(down(list(map(int, sys.stdin.read().split()))[1:]))


threading.Thread(target=time.sleep, args=(60,), daemon=True).start()
t = threading.Thread(target=main)
t.start()
t.join()
