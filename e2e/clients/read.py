# Reads a person's calendars with python-caldav, twice, and prints what it found as JSON.
# python3 read.py URL USER PASSWORD CALENDAR; between the two syncs it waits for a line on stdin.
import json
import sys

import caldav

url, user, password, name = sys.argv[1:5]
client = caldav.DAVClient(url, username=user, password=password)
calendars = client.principal().calendars()
calendar = next(c for c in calendars if c.name == name)
events = calendar.objects_by_sync_token(load_objects=True)
titles = [e.vobject_instance.vevent.summary.value for e in events]
print(json.dumps({"calendars": [c.name for c in calendars], "titles": titles}), flush=True)
sys.stdin.readline()
changed = calendar.objects_by_sync_token(sync_token=events.sync_token, load_objects=False)
print(json.dumps({"changed": [str(e.url) for e in changed]}), flush=True)
