-- Documents sent along a route together and decided together.
create table if not exists bundle (
  id bigint not null auto_increment primary key,
  opened_by bigint not null,
  opened_at datetime(6) not null,
  closed_at datetime(6) null,
  constraint bundle_opened_by foreign key (opened_by) references person (id)
);
