"""What gunicorn loads: the application from REEDMACE_* variables, with the sums compiled before anyone waits."""

from reedmace.api import Settings, create_app
from reedmace.command.warm import warm

app = create_app(Settings.from_environment())
warm()
