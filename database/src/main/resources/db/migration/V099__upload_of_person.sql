-- What a person has under way is counted before more is let in.
create index if not exists upload_of_person on upload (person, state, size);
