alter table kind add column if not exists hides_revising tinyint(1) not null default 0;
