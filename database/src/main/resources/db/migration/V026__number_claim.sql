-- Every number that is or was in use, by aspect: current, former, dropped or reserved.
create table if not exists number_claim (
  id bigint not null auto_increment primary key,
  aspect varchar(10) character set ascii collate ascii_bin not null,
  number_key varchar(60) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  number varchar(60) not null,
  item bigint null,
  state varchar(10) character set ascii collate ascii_bin not null,
  current_mark smallint null check (current_mark = 1),
  at datetime(6) not null,
  constraint number_claim_number unique (aspect, number_key),
  constraint number_claim_current unique (item, current_mark),
  constraint number_claim_state check (state in ('CURRENT','FORMER','DROPPED','RESERVED')),
  key number_claim_key (number_key),
  constraint number_claim_item foreign key (item) references item (id)
);
