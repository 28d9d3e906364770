-- One sending to review.
create table if not exists round (
  id bigint not null auto_increment primary key,
  bundle bigint not null,
  opened_by bigint not null,
  opened_at datetime(6) not null,
  note varchar(1000) not null,
  state varchar(12) character set ascii collate ascii_bin not null,
  open_mark smallint null check (open_mark = 1),
  ended_at datetime(6) null,
  ended_by bigint null,
  ended_why varchar(1000) null,
  constraint round_open unique (bundle, open_mark),
  constraint round_state check (state in ('OPEN','SIGNED','RETURNED','TAKEN_BACK')),
  constraint round_open_or_ended check ((open_mark is null) = (ended_at is not null)),
  constraint round_bundle foreign key (bundle) references bundle (id),
  constraint round_opened_by foreign key (opened_by) references person (id),
  constraint round_ended_by foreign key (ended_by) references person (id)
);
