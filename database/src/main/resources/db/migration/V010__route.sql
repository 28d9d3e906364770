-- The path that a kind of document takes.
create table if not exists route (
  id bigint not null auto_increment primary key,
  code varchar(40) character set ascii collate ascii_bin not null,
  name varchar(100) not null,
  constraint route_code unique (code)
);
