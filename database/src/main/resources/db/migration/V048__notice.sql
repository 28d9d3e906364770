-- Something that a person is told on Today: a broken hold, an ask, a stray.
create table if not exists notice (
  id bigint not null auto_increment primary key,
  person bigint not null,
  at datetime(6) not null,
  code varchar(40) character set ascii collate ascii_bin not null,
  item bigint null,
  by_person bigint null,
  says varchar(500) not null,
  target varchar(200) not null,
  done_at datetime(6) null,
  key notice_person (person, done_at, at),
  constraint notice_person foreign key (person) references person (id),
  constraint notice_item foreign key (item) references item (id),
  constraint notice_by foreign key (by_person) references person (id)
);
