-- Who is asked in a round, for what, until when.
create table if not exists ask (
  id bigint not null auto_increment primary key,
  round bigint not null,
  step int not null,
  role varchar(40) character set ascii collate ascii_bin not null,
  person bigint null,
  needed int not null,
  meaning varchar(60) not null,
  fact varchar(60) not null,
  days int not null,
  due date not null,
  constraint ask_round_id unique (id, round),
  key ask_person (person),
  constraint ask_needed check (needed > 0),
  constraint ask_round foreign key (round) references round (id),
  constraint ask_role foreign key (role) references role (code),
  constraint ask_person foreign key (person) references person (id)
);
