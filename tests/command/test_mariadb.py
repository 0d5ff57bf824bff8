"""Where servers listen."""

import socket

from reedmace.command.free_port import free_port, lowest_outgoing_port


def test_a_free_port_is_none_that_an_outgoing_connection_takes_while_its_server_is_down() -> None:
    found = {free_port() for _ in range(40)}
    assert max(found) < lowest_outgoing_port()
    assert len(found) > 30
    with (
        socket.create_server(("127.0.0.1", free_port())) as server,
        socket.create_connection(server.getsockname()) as line,
    ):
        assert line.getsockname()[1] >= lowest_outgoing_port()


def test_a_port_somebody_listens_on_is_not_given(monkeypatch) -> None:
    taken, left = free_port(), free_port()
    drawn = iter([taken, left])
    monkeypatch.setattr("reedmace.command.free_port._CHOICE.randrange", lambda *_: next(drawn))
    with socket.create_server(("127.0.0.1", taken)):
        assert free_port() == left
