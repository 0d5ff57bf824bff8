"""Notices: what reaches a keeper by mail and when, the mails themselves, and the worker's rounds that send them."""

from reedmace.notices.account_mail import AccountMail, queue
from reedmace.notices.choice import NoticeChoice
from reedmace.notices.links import Links
from reedmace.notices.rounds import Worker
from reedmace.notices.smtp import MailServer, MailServerError, server_of

__all__ = ["AccountMail", "Links", "MailServer", "MailServerError", "NoticeChoice", "Worker", "queue", "server_of"]
