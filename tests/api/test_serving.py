"""What is served is sent at once."""

import asyncio
import socket

from golden_pivot.api.serving import listener_at


def test_an_answer_in_two_parts_does_not_wait_for_the_browser() -> None:
    async def at_once() -> int:
        accepted: asyncio.Future[int] = asyncio.get_running_loop().create_future()

        def came(_: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
            taken = writer.get_extra_info("socket")
            accepted.set_result(taken.getsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY))
            writer.close()

        listener = listener_at(0)
        async with await asyncio.start_server(came, sock=listener):
            _, writer = await asyncio.open_connection(*listener.getsockname())
            try:
                return await accepted
            finally:
                writer.close()

    assert asyncio.run(at_once())
