-- One person's decision on one document of a round; bound to its digest. A person answers an ask once while it stands.
create table if not exists sign_off (
  id bigint not null auto_increment primary key,
  ask bigint not null,
  round bigint not null,
  item bigint not null,
  version bigint not null,
  digest binary(32) not null,
  person bigint not null,
  decision varchar(12) character set ascii collate ascii_bin not null,
  remark varchar(2000) not null,
  at datetime(6) not null,
  standing_mark smallint null check (standing_mark = 1),
  fell_at datetime(6) null,
  fell_why varchar(500) null,
  constraint sign_off_once unique (ask, item, person, standing_mark),
  constraint sign_off_stands_or_fell check ((standing_mark is null) = (fell_at is not null)),
  constraint sign_off_decision check (decision in ('SIGNED','REMARKED','RETURNED','ABSTAINED')),
  key sign_off_version (version),
  constraint sign_off_ask foreign key (ask, round) references ask (id, round),
  constraint sign_off_item foreign key (round, item) references round_item (round, item),
  constraint sign_off_version foreign key (version) references version (id),
  constraint sign_off_person foreign key (person) references person (id)
);
