-- What an act was asked with: its key with another body is not the same act.
alter table act add column if not exists said binary(32) null;
