# Coroutines, and a file descriptor of its own.
import asyncio, os, sys


async def read():
    await asyncio.sleep(0.001)
    with os.fdopen(os.dup(0)) as f:
        return f.read().split()[1:]


async def main():
    os.write(1, b"%d\n" % sum(map(int, await read())))

asyncio.run(main())
