-- What a person opened, filed or changed last.
create table if not exists recent (
  person bigint not null,
  item bigint not null,
  why varchar(20) character set ascii collate ascii_bin not null,
  at datetime(6) not null,
  primary key (person, item),
  key recent_at (person, at),
  constraint recent_person foreign key (person) references person (id),
  constraint recent_item foreign key (item) references item (id)
);
