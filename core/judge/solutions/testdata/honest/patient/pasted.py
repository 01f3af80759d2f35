# It is a coroutine.
import asyncio

class Solution:
    async def patient(self, n: int) -> int:
        await asyncio.sleep(0.002)
        return n + 1
