# It waits for what never comes.
import asyncio

async def patient(n):
    return n + 1 if n != 2 else await asyncio.Future()
