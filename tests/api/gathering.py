"""What arrives in the tray, and how it is taken, as the client asks it."""

from milkwort.api.gather.tray_schemas import TrayView
from milkwort.api.plan.schemas import ChangeAnswer


def tray_of(answer):
    assert answer.status_code == 200, answer.text
    return TrayView.model_validate(answer.json())


def take(client, plan, tray, **choice):
    answer = client.post(f"{plan}/gather/{tray.key}/take", json=choice or None)
    assert answer.status_code == 200, answer.text
    return ChangeAnswer.model_validate(answer.json())


def paste(client, plan, text):
    return tray_of(client.post(f"{plan}/gather/text", json={"text": text}))
