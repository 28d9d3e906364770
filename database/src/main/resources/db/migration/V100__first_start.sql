-- The code that an empty server prints on its console, by its hash: who knows it begins, once.
create table if not exists first_start (
  id int not null primary key,
  code_hash binary(32) not null,
  used_at datetime(6) null
);
