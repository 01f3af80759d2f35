# It writes bytes, and leaves by os._exit.
import os, sys
data = sys.stdin.buffer.read().split()
sys.stdout.buffer.write(b"%d\r\n" % sum(map(int, data[1:])))
sys.stdout.flush()
os._exit(0)
