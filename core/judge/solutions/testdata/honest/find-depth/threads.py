# One thread reads and another says.
import queue, sys, threading
heard = queue.Queue()


def read():
    for line in sys.stdin:
        heard.put(line.strip())


threading.Thread(target=read, daemon=True).start()
high, low = int(heard.get()), 1
while low < high:
    middle = (low + high) // 2
    sys.stdout.write(f"probe {middle}\n")
    sys.stdout.flush()
    if heard.get() == "deeper":
        low = middle + 1
    else:
        high = middle
print(f"depth {low}")
