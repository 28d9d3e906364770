-- Moves on whenever a grant, a role or a membership changes, so that nodes may keep what they read of them until it does.
create table if not exists access_stamp (id smallint not null primary key check (id = 1), stamp bigint not null) select 1 as id, 0 as stamp;
