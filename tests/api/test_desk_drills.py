"""What is learned from a desk over HTTP: kept once, asked, answered, dropped and put back."""

from __future__ import annotations

from typing import Any

from fastapi.testclient import TestClient

AT = "/api/practice/desks"
ASKS = {"names": "Ann Lee\nBo Chang", "wanted": [6, 7], "phrasings": ["{name}"], "reveals": ["last"]}


def learn(client: TestClient, **told: Any) -> Any:
    return client.post(AT, json={"desk": "spell", "title": "The crew", "asks": ASKS, **told})


def test_it_is_kept_once_and_asked_as_drills_of_a_routine_are(client: TestClient) -> None:
    made = learn(client)
    assert made.status_code == 201 and made.json()["due"] == 0
    drill = made.json()["drill"]
    assert drill["title"] == "The crew" and len(drill["questions"]) == 2
    assert learn(client, title="Again").json()["drill"] == drill
    assert [one["drill"] for one in client.get(AT).json()] == [drill]
    asked = client.get(f"{AT}/{drill['uid']}/drills").json()
    assert [key for _, key in asked["due"]] == ["spell Ann Lee", "spell Bo Chang"]
    answer = {"uid": "a1", "drill": "spell", "question": "spell Ann Lee", "right": False, "seconds": 3.0}
    assert client.post(f"{AT}/{drill['uid']}/answers", json=answer).status_code == 201
    assert client.post(f"{AT}/{drill['uid']}/answers", json=answer).json()["asked"] == 1
    hardest = client.get(f"{AT}/{drill['uid']}/drills").json()["standing"][0]
    assert hardest["question"]["known"] == "Ann Lee" and hardest["asked"] == 1
    table = client.get(f"{AT}/{drill['uid']}/drills.csv")
    assert "Bo Chang" in table.text and table.headers["content-type"].startswith("text/csv")


def test_it_is_dropped_and_put_back_with_its_answers(client: TestClient) -> None:
    uid = learn(client).json()["drill"]["uid"]
    client.post(
        f"{AT}/{uid}/answers",
        json={"uid": "a1", "drill": "spell", "question": "spell Ann Lee", "right": True, "seconds": 3},
    )
    gone = client.delete(f"{AT}/{uid}").json()
    assert client.get(AT).json() == [] and client.get(f"{AT}/{uid}/drills").status_code == 404
    assert client.delete(f"{AT}/{uid}").status_code == 404
    assert client.post(f"{AT}/put-back", json=gone).json() == {"done": True}
    assert client.post(f"{AT}/put-back", json=gone).json() == {"done": False}
    standing = client.get(f"{AT}/{uid}/drills").json()["standing"]
    assert {one["question"]["known"]: one["asked"] for one in standing} == {"Ann Lee": 1, "Bo Chang": 0}
    assert client.post(f"{AT}/put-back", json={**gone, "asks": "[]"}).status_code == 422
    assert client.post(f"{AT}/put-back", json={**gone, "uid": "../x"}).status_code == 422


def test_what_has_nothing_to_learn_is_refused_and_nothing_is_kept(client: TestClient) -> None:
    for told in ({"desk": "none"}, {"desk": "odds", "asks": {}}, {"asks": {"wanted": "x"}}, {"asks": {"wanted": []}}):
        refused = learn(client, **told)
        assert refused.status_code == 422 and refused.json()["message"], told
    assert client.get(AT).json() == []
