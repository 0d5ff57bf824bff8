"""Mail about accounts: addresses confirmed, new passwords, what changed, invitations, and the end of all mail."""

import re

import pytest

from reedmace.api import Settings, create_app
from reedmace.database import connect
from reedmace.notices import Links, MailServer, Worker
from reedmace.standins.mail_server import Mailbox
from reedmace.store.notice_models import NoticeRow
from tests.api.conftest import Keeper, _numbers

SECRET, BASE = "test-mail", "https://reedmace.example"


class Post:
    """The worker of a test: what it was given to send, by address."""

    def __init__(self, mariadb) -> None:
        self.database = connect(mariadb.app_url)
        self.sent: list = []
        post = self

        class Recorder(MailServer):
            def send(self, message) -> None:
                post.sent.append(message)

        self.worker = Worker(self.database, Links(SECRET, BASE), Recorder("mail.example", 25, "n@reedmace.example"))

    def deliver(self, now) -> None:
        with self.database.connection_context():
            self.worker.send(now)

    def to(self, email: str) -> list:
        return [m for m in self.sent if m["To"] == email]

    def link_in(self, message) -> str:
        return re.search(rf"{BASE}(/\S+)", message.get_body(("plain",)).get_content())[1]


@pytest.fixture
def post(mariadb) -> Post:
    database = connect(mariadb.app_url)
    NoticeRow.delete().bind(database).execute()
    database.close_all()
    return Post(mariadb)


@pytest.fixture
def mailing(mariadb, app):
    """Browsers of an installation that sends mail."""
    settings = Settings(
        database_url=mariadb.app_url,
        secret_key=SECRET,
        quick_hash=True,
        sign_ups_an_hour=100_000,
        mail=MailServer("mail.example", 25, "n@reedmace.example"),
        public_url=BASE,
    )
    made = create_app(settings)
    return lambda: Keeper(made.test_client())


@pytest.fixture
def now():
    from datetime import UTC, datetime, timedelta

    return datetime.now(UTC) + timedelta(seconds=5)


def signed_up(mailing) -> tuple[Keeper, str]:
    keeper, email = mailing(), f"mail{next(_numbers)}@yard.example"
    assert keeper.enter("POST", "/api/account", {"email": email, "password": "reed and water"}).status_code == 201
    return keeper, email


def confirmed(mailing, post, now) -> tuple[Keeper, str]:
    keeper, email = signed_up(mailing)
    post.deliver(now)
    token = post.link_in(post.to(email)[0]).rsplit("/", 1)[1]
    assert keeper.send("POST", "/api/confirmation", {"token": token}).json == {"email": email}
    return keeper, email


def test_a_new_address_is_confirmed_by_the_link_sent_to_it(mailing, post, now) -> None:
    keeper, email = signed_up(mailing)
    assert keeper.get("/api/account/notices").json["confirmed"] is False
    post.deliver(now)
    (mail,) = post.to(email)
    path = post.link_in(mail)
    assert path.startswith("/confirm/")
    stranger = mailing()
    assert stranger.send("POST", "/api/confirmation", {"token": path[9:-4] + "AAAA"}).status_code == 404
    assert stranger.send("POST", "/api/confirmation", {"token": path[9:]}).status_code == 200
    assert keeper.get("/api/account/notices").json["confirmed"] is True


def test_a_link_to_an_address_since_changed_confirms_nothing(mailing, post, now) -> None:
    keeper, email = signed_up(mailing)
    post.deliver(now)
    token = post.link_in(post.to(email)[0]).rsplit("/", 1)[1]
    new = f"new{next(_numbers)}@yard.example"
    assert keeper.enter("PUT", "/api/account/email", {"password": "reed and water", "email": new}).status_code == 200
    assert keeper.send("POST", "/api/confirmation", {"token": token}).status_code == 404
    assert keeper.get("/api/account/notices").json["confirmed"] is False


def test_a_lost_password_is_set_anew_once_by_a_link(mailing, post, now) -> None:
    keeper, email = confirmed(mailing, post, now)
    stranger = mailing()
    assert stranger.send("POST", "/api/password/forgotten", {"email": email}).status_code == 202
    post.deliver(now)
    path = post.link_in(post.to(email)[-1])
    body = {"token": path.rsplit("/", 1)[1], "password": "a quieter pool"}
    assert stranger.enter("POST", "/api/password/new", body).status_code == 201
    assert stranger.get("/api/tanks").status_code == 200
    # Every other session ended, and the link is spent.
    assert keeper.get("/api/tanks").status_code == 401
    assert mailing().send("POST", "/api/password/new", body).status_code == 404
    assert mailing().enter("POST", "/api/session", {"email": email, "password": "a quieter pool"}).status_code == 201


def test_a_link_to_a_password_is_too_old_after_half_an_hour(mailing, post, now) -> None:
    from datetime import timedelta

    import time_machine

    _, email = confirmed(mailing, post, now)
    mailing().send("POST", "/api/password/forgotten", {"email": email})
    post.deliver(now)
    token = post.link_in(post.to(email)[-1]).rsplit("/", 1)[1]
    body = {"token": token, "password": "a quieter pool"}
    with time_machine.travel(now + timedelta(minutes=31), tick=True):
        assert mailing().send("POST", "/api/password/new", body).status_code == 404
    assert mailing().enter("POST", "/api/password/new", body).status_code == 201


def test_nobody_learns_whether_an_address_has_an_account(mailing, post, now) -> None:
    _, email = signed_up(mailing)
    unknown = f"nobody{next(_numbers)}@yard.example"
    answers = [mailing().send("POST", "/api/password/forgotten", {"email": e}) for e in (email, unknown)]
    assert [a.status_code for a in answers] == [202, 202]
    assert answers[0].json["said"].replace(email, "") == answers[1].json["said"].replace(unknown, "")
    post.deliver(now)
    assert post.to(unknown) == []


def test_an_address_is_not_flooded(mailing) -> None:
    email = f"nobody{next(_numbers)}@yard.example"
    codes = [mailing().send("POST", "/api/password/forgotten", {"email": email}).status_code for _ in range(6)]
    assert codes == [202] * 4 + [429] * 2


def test_changes_are_told_where_they_were_not_made(mailing, post, now) -> None:
    keeper, email = confirmed(mailing, post, now)
    post.sent.clear()
    mailing().enter("POST", "/api/session", {"email": email, "password": "reed and water"})
    changed = {"old": "reed and water", "new": "a quieter pool"}
    assert keeper.enter("PUT", "/api/account/password", changed).status_code == 200
    new = f"new{next(_numbers)}@yard.example"
    assert keeper.enter("PUT", "/api/account/email", {"password": "a quieter pool", "email": new}).status_code == 200
    post.deliver(now)
    told = [m.get_body(("plain",)).get_content() for m in post.to(email)]
    assert ["device" in told[0], "password was changed" in told[1], new in told[2]] == [True] * 3
    assert [post.link_in(m).startswith("/confirm/") for m in post.to(new)] == [True]


def test_signing_in_again_on_the_same_device_is_not_told(mailing, post, now) -> None:
    keeper, email = confirmed(mailing, post, now)
    keeper.enter("DELETE", "/api/session", None)
    post.sent.clear()
    keeper.enter("POST", "/api/session", {"email": email, "password": "reed and water"})
    post.deliver(now)
    assert post.to(email) == []


def test_an_invitation_is_mailed_by_a_confirmed_keeper_only(mailing, post, now) -> None:
    helper_email = f"helper{next(_numbers)}@yard.example"
    unknown, _ = signed_up(mailing)
    made = unknown.send("POST", "/api/household/invites", {"role": "helper", "email": helper_email}).json
    assert made["mailed"] is False
    owner, email = confirmed(mailing, post, now)
    made = owner.send("POST", "/api/household/invites", {"role": "helper", "email": helper_email}).json
    assert made["mailed"] is True
    post.deliver(now)
    (mail,) = post.to(helper_email)
    path = post.link_in(mail)
    helper, _ = signed_up(mailing)
    assert helper.send("POST", f"/api/invites/{path.rsplit('/', 1)[1]}").status_code == 201
    post.deliver(now)
    assert "joined" in post.to(email)[-1].get_body(("plain",)).get_content()
    # The link is nowhere to be read afterwards.
    assert not NoticeRow.select().where(NoticeRow.body.contains("/join/")).bind(post.database).exists()


def test_all_mail_ends_in_one_press_from_the_mail(mailing, post, now) -> None:
    keeper, _ = confirmed(mailing, post, now)
    choice = {**keeper.get("/api/account/notices").json["choice"], "mail": True}
    assert keeper.send("PUT", "/api/account/notices", choice).status_code == 200
    account = keeper.get("/api/account/notices").json
    assert account["choice"]["mail"] is True
    row = NoticeRow.select().order_by(NoticeRow.id.desc()).bind(post.database).first()
    token = Links(SECRET, BASE).end_notices(row.account_id)
    program = mailing().client
    # A mail program sends a form, no cookie and no token of ours (RFC 8058).
    answer = program.post(f"/api/no-mail/{token}", data={"List-Unsubscribe": "One-Click"})
    assert answer.json == {"ended": True}
    assert program.get(f"/api/no-mail/{token}").headers["Location"] == f"/no-mail/{token}"
    assert program.post(f"/api/no-mail/{token[:-3]}abc").status_code == 404
    # A token with a line end in it cannot end the header.
    assert program.get("/api/no-mail/a%0Ab").headers["Location"] == "/no-mail/a%0Ab"
    assert keeper.get("/api/account/notices").json["choice"]["mail"] is False


@pytest.mark.parametrize(
    "wrong", [{"zone": "Nowhere/Town"}, {"day_at": "25:00"}, {"week_on": 9}, {"mail": "perhaps"}, {"more": 1}]
)
def test_a_choice_that_is_none_is_refused_and_the_old_one_stays(mailing, wrong) -> None:
    keeper, _ = signed_up(mailing)
    choice = keeper.get("/api/account/notices").json["choice"]
    answer = keeper.send("PUT", "/api/account/notices", {**choice, **wrong})
    assert answer.status_code == 422
    assert answer.json["errors"]
    assert keeper.get("/api/account/notices").json["choice"] == choice


def test_without_a_mail_server_all_works_and_nothing_is_queued(keeper, post) -> None:
    assert keeper.get("/api/session").json["mail_on"] is False
    assert keeper.get("/api/account/notices").json["mail_on"] is False
    assert keeper.send("POST", "/api/account/confirmation").status_code == 409
    assert keeper.send("POST", "/api/password/forgotten", {"email": "a@yard.example"}).status_code == 409
    assert NoticeRow.select().bind(post.database).count() == 0
    assert keeper.get("/api/demo/mail").status_code == 404


def test_a_visit_sees_its_own_mails_and_nobody_elses(mariadb, tmp_path, app) -> None:
    settings = Settings(
        database_url=mariadb.app_url,
        secret_key=SECRET,
        demo=True,
        quick_hash=True,
        mail=MailServer("127.0.0.1", 25, "n@reedmace.example", standin=True),
        mail_folder=tmp_path,
    )
    demo = create_app(settings)
    one, other = Keeper(demo.test_client()), Keeper(demo.test_client())
    from reedmace.demo import write_demo

    database = connect(mariadb.app_url)
    with database.connection_context():
        write_demo(database)
    for visit in (one, other):
        assert visit.enter("POST", "/api/session/demo", None).status_code == 201
    address = one.get("/api/demo/mail").json["address"]
    html = "<html><head></head><body><script>alert(1)</script>Hello</body></html>"
    raw = f"Subject: Hello\r\nMessage-ID: <a@b>\r\nContent-Type: text/html\r\n\r\n{html}".encode()
    Mailbox(tmp_path).put(address, raw)
    (mail,) = one.get("/api/demo/mail").json["mails"]
    assert mail["subject"] == "Hello"
    shown = one.get(f"/api/demo/mail/{mail['id']}")
    assert "Hello" in shown.get_data(as_text=True)
    assert "script-src" not in shown.headers["Content-Security-Policy"]
    assert "default-src 'none'" in shown.headers["Content-Security-Policy"]
    assert other.get("/api/demo/mail").json["mails"] == []
    assert other.get(f"/api/demo/mail/{mail['id']}").status_code == 404
