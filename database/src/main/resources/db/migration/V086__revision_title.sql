-- The title is a fact of the revision: while B is prepared, A keeps the title that it was signed with.
alter table revision add column if not exists title varchar(200) not null default '';
