"""What is served while the application is still being made, and where it can't be."""

import threading
from concurrent.futures import ThreadPoolExecutor
from contextlib import asynccontextmanager

import pytest
from fastapi import FastAPI
from starlette.testclient import TestClient

from milkwort.api.http.front import Front

LONG = 20.0
"""Seconds after which a wait has failed."""


class Making:
    """An application that is made when the test says so."""

    def __init__(self):
        self.may_go_on = threading.Event()
        self.told, self.fails = [], None

    def __call__(self):
        assert self.may_go_on.wait(LONG)
        if self.fails is not None:
            raise self.fails

        @asynccontextmanager
        async def lifespan(_app):
            self.told.append("begins")
            yield
            self.told.append("ends")

        app = FastAPI(lifespan=lifespan)
        app.add_api_route("/api/plans", lambda: ["a plan"])
        return app


@pytest.fixture
def making():
    return Making()


@pytest.fixture
def front(making):
    return Front(making, ["testserver"], ["api"], lambda: making.told.append("nothing left"))


@pytest.fixture
def client(front, making):
    with TestClient(front, raise_server_exceptions=False) as client:
        yield client
        making.may_go_on.set()  # a server that is told to stop waits for it


def test_the_page_is_there_before_the_application(client, making):
    assert client.get("/").status_code == 200
    assert not making.told


def test_what_is_asked_of_the_application_waits_for_it(client, making):
    with ThreadPoolExecutor(1) as pool:
        asked = pool.submit(client.get, "/api/plans")
        assert client.get("/").status_code == 200
        assert not asked.done()
        making.may_go_on.set()
        assert asked.result(LONG).json() == ["a plan"]
    assert making.told == ["begins"]


def test_the_application_lives_and_ends_with_the_server(front, making):
    making.may_go_on.set()
    with TestClient(front) as client:
        assert client.get("/api/plans").status_code == 200
    assert making.told == ["begins", "ends"]


def test_an_application_that_cannot_be_made_ends_the_server(client, front, making):
    making.fails = ValueError("no")
    making.may_go_on.set()
    answer = client.get("/api/plans")
    assert answer.status_code == 503 and answer.json()["error"]["code"] == "cannot_start"
    assert front.failed is making.fails and making.told == ["nothing left"]


@pytest.mark.parametrize("path", ["/", "/plans/1/fit", "/assets/none.js", "/apis"])
def test_pages_are_for_hosts_that_are_served(client, path):
    assert client.get(path, headers={"host": "elsewhere.example"}).status_code == 403


def test_what_is_no_file_is_said_as_everywhere(client):
    assert client.get("/assets/none.js").json()["error"]["code"] == "not_found"
    assert client.post("/").json()["error"]["code"] == "not_allowed"


def test_a_page_takes_nothing(client):
    assert client.post("/", content=b"x").status_code == 413
