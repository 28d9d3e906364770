-- One row, locked while a check-in makes a reference that was not there before, so that two of them cannot close a ring.
create table if not exists structure_gate (id smallint not null primary key check (id = 1)) select 1 as id;
