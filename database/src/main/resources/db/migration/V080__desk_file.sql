-- What was brought to a desk: the version and its place; unchanged bytes are told by the version's content.
create table if not exists desk_file (
  desk bigint not null,
  item bigint not null,
  version bigint not null,
  path varchar(1000) not null,
  on_purpose tinyint(1) not null default 0,
  at datetime(6) not null,
  primary key (desk, item),
  constraint desk_file_desk foreign key (desk) references desk (id) on delete cascade,
  constraint desk_file_version foreign key (version, item) references version (id, item)
);
