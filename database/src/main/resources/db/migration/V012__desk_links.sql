-- Links by which a page asks the companion on a person's machine for a file.

-- What the companion of a desk knows its links by; none where it takes none. No secret: it keeps links of other desks away from it.
alter table desk add column if not exists opens_tag varchar(32) character set ascii collate ascii_bin null;

-- A link is good once, for its own person, for two minutes. Only the hash of its code is kept.
create table if not exists desk_link (
  id bigint not null auto_increment primary key,
  hash binary(32) not null,
  person bigint not null,
  desk bigint not null,
  item bigint not null,
  version int not null,
  act varchar(8) character set ascii collate ascii_bin not null,
  made_at datetime(6) not null,
  expires_at datetime(6) not null,
  taken_at datetime(6) null,
  done tinyint(1) null,
  says varchar(500) not null default '',
  constraint desk_link_hash unique (hash),
  constraint desk_link_act check (act in ('LOOK','WORK')),
  constraint desk_link_done check (done is null or taken_at is not null),
  key desk_link_person (person, made_at),
  constraint desk_link_person foreign key (person) references person (id),
  constraint desk_link_desk foreign key (desk) references desk (id) on delete cascade,
  constraint desk_link_item foreign key (item) references item (id)
);
