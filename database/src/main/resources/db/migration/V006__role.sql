-- A named list of rights.
create table if not exists role (
  id bigint not null auto_increment primary key,
  code varchar(40) character set ascii collate ascii_bin not null,
  name varchar(100) not null,
  constraint role_code unique (code)
);
