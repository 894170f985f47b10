"""What answers the questions that take long, as a process: `python -m server.work`."""

import sys

from server.apps.questions.work import main

if __name__ == "__main__":
    sys.exit(main())
