# An exception in a thread, and no answer.
import threading


def main():
    raise SystemError("cold")


t = threading.Thread(target=main)
t.start()
t.join()
