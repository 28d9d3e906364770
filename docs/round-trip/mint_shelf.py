#!/usr/bin/env python3
"""The shelf for macros: hold and bring a file, check it in, over the interface for programs (/api/v1) and with Python's own library alone.

    MINT_SHELF    the address of the shelf, as http://localhost:8080
    MINT_TOKEN    a token that may write, of the page Companion and tokens
    MINT_FOLDER   where files lie (the folder that it is started in, where it is not set)

    mint_shelf.py bring TG40-3030 "what for"      checks it out and brings it; prints where it lies
    mint_shelf.py check-in FILE "what changed"    checks in what lies there; prints what became of it
    mint_shelf.py undo FILE                       gives the hold back; the file stays as it lies
"""
import hashlib
import json
import os
import shutil
import sys
import urllib.error
import urllib.parse
import urllib.request
import uuid
from pathlib import Path


class Refused(Exception):
    """What was not done, in the words of the shelf, with what helps."""


class Shelf:
    def __init__(self, address=None, token=None, folder=None):
        address, token = address or os.environ.get("MINT_SHELF"), token or os.environ.get("MINT_TOKEN")
        if not address or not token:
            raise Refused("Set MINT_SHELF to the address of the shelf and MINT_TOKEN to a token of the page Companion and tokens.")
        self.api = address.rstrip("/") + "/api/v1"
        self.token = token
        self.folder = Path(folder or os.environ.get("MINT_FOLDER") or os.getcwd()).resolve()

    def _open(self, method, path, body=None, **headers):
        request = urllib.request.Request(self.api + path, data=body, method=method, headers={"Authorization": "Bearer " + self.token, **headers})
        try:
            return urllib.request.urlopen(request, timeout=60)
        except urllib.error.HTTPError as refusal:
            raise Refused(_words(refusal)) from None
        except OSError as failure:
            raise Refused(f"The shelf cannot be reached ({getattr(failure, 'reason', failure)}). Files stay as they lie; try again.") from None

    def _act(self, path, body):
        """An act is sent with a key of its own: sent twice, it is done once."""
        headers = {"Idempotency-Key": str(uuid.uuid4()), "Content-Type": "application/json"}
        with self._open("POST", path, json.dumps(body).encode(), **headers) as answer:
            said = answer.read()
        return json.loads(said) if said else None

    def _read(self, path):
        with self._open("GET", path) as answer:
            return json.load(answer)

    def document(self, number):
        found = self._read("/documents?q=" + urllib.parse.quote(number))["documents"]
        named = [one for one in found if one["number"] == number]
        if len(named) != 1:
            raise Refused(f"No document that you see has the number {number}.")
        return named[0]

    def bring(self, number, purpose=""):
        """Checks out and brings; where it lies. What lies there changed, or is of somebody else, is never written over."""
        document = self.document(number)
        file = self.place(document["path"])
        known = {one["sha256"] for one in self._read(f"/documents/{document['id']}/versions")}
        if file.exists() and _sha256(file) not in known:
            raise Refused(f"{file} lies there and is in no version. Check it in or put it elsewhere; it was left as it is.")
        held = self._act("/holds", {"documents": [document["id"]], "desk": "", "purpose": purpose})[0]
        file.parent.mkdir(parents=True, exist_ok=True)
        # Beside it first: what lies there is replaced whole, or not at all.
        beside = file.with_name(f".~{uuid.uuid4().hex}")
        try:
            with open(beside, "xb") as out, self._open("GET", f"/documents/{held['id']}/versions/{held['version']}/content") as content:
                shutil.copyfileobj(content, out)
            if _sha256(beside) != held["sha256"]:
                raise Refused(f"{number} is checked out, but its file did not come whole. Bring it again.")
            os.replace(beside, file)
        finally:
            beside.unlink(missing_ok=True)
        return file

    def held(self, file):
        """What this person holds whose place on the desk is this file's."""
        place = Path(file).resolve()
        mine = [one for one in self._read("/holds") if (self.folder / one["path"]).resolve() == place]
        if len(mine) != 1:
            raise Refused(f"You hold no document whose file is {place}. Check it out first; the file stays as it is.")
        return mine[0]

    def check_in(self, file, comment=""):
        """Checks in what lies there, and says what became of it."""
        document = self.held(file)
        size = os.path.getsize(file)
        upload = self._upload(Path(file), size)
        row = {"document": document["id"], "upload": upload, "hold": document["hold"]["id"]}
        done = self._act("/check-ins", {"rows": [row], "comment": comment})[0]
        number = document["number"]
        return {
            "version": f"{number} is checked in as version {done['number']}.",
            "unchanged": f"{number} is as it was; its hold is given back.",
            "only-saved": f"{number} was saved and not changed; its hold is given back.",
            "stray": f"{number} could not be taken as a version and is kept as a stray. Look at it on the page Desk.",
        }[done["what"]]

    def undo(self, file):
        document = self.held(file)
        self._act("/holds/undo", {"documents": [document["id"]]})
        return f"{document['number']} is no longer checked out; {file} stays as it lies."

    def _upload(self, file, size):
        named = urllib.parse.urlencode({"name": file.name, "size": size}, quote_via=urllib.parse.quote)
        with self._open("POST", "/uploads?" + named, b"") as answer:
            token = json.load(answer)["token"]
        with open(file, "rb") as content:
            headers = {"Content-Type": "application/octet-stream", "Content-Length": str(size)}
            self._open("PUT", f"/uploads/{token}?from=0", content, **headers).close()
        return token

    def place(self, path):
        """A place on the desk; one that leads out of it is refused, whoever names it."""
        file = (self.folder / path).resolve()
        if self.folder not in file.parents:
            raise Refused(f"{path} leads out of {self.folder}. Nothing was done.")
        return file


def _words(refusal):
    try:
        said = json.load(refusal)
        return " ".join(part for part in (said.get("detail") or said.get("title"), said.get("remedy")) if part)
    except ValueError:
        return f"The shelf answered {refusal.code}. Nothing was done."


def _sha256(file):
    digest = hashlib.sha256()
    with open(file, "rb") as content:
        for block in iter(lambda: content.read(1 << 20), b""):
            digest.update(block)
    return digest.hexdigest()


def main(words):
    try:
        if words[:1] == ["bring"] and len(words) in (2, 3):
            print(Shelf().bring(*words[1:]))
        elif words[:1] == ["check-in"] and len(words) in (2, 3):
            print(Shelf().check_in(*words[1:]))
        elif words[:1] == ["undo"] and len(words) == 2:
            print(Shelf().undo(words[1]))
        else:
            print(__doc__, file=sys.stderr)
            return 2
        return 0
    except (Refused, OSError) as refusal:
        print(refusal, file=sys.stderr)
        return 1


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
