-- Whether readers are told that a released document is being revised; a shelf can hide it.
alter table shelf add column if not exists hides_revising tinyint(1) not null default 0;
