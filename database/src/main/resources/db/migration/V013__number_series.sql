-- A pattern from which document numbers are drawn.
create table if not exists number_series (
  id bigint not null auto_increment primary key,
  code varchar(40) character set ascii collate ascii_bin not null,
  name varchar(100) not null,
  pattern varchar(200) not null,
  scope varchar(10) character set ascii collate ascii_bin not null,
  constraint number_series_code unique (code),
  constraint number_series_scope check (scope in ('SERVER','SHELF','KIND'))
);
