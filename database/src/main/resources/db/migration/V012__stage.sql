-- A stop of a route edition. Rules read its class, pages show its name.
create table if not exists stage (
  edition bigint not null,
  code varchar(40) character set ascii collate ascii_bin not null,
  name varchar(60) not null,
  class varchar(20) character set ascii collate ascii_bin not null,
  position int not null,
  primary key (edition, code),
  constraint stage_class check (class in ('PREPARING','DECIDING','RELEASED','SUPERSEDED','WITHDRAWN','CLOSED')),
  constraint stage_edition foreign key (edition) references route_edition (id)
);
