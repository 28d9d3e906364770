-- One event on its way to one receiver: sent at least once, with the same identification each time.
create table if not exists delivery (
  id bigint not null auto_increment primary key,
  event bigint not null,
  channel varchar(10) character set ascii collate ascii_bin not null,
  receiver bigint not null,
  ask bigint null,
  state varchar(10) character set ascii collate ascii_bin not null,
  tries int not null default 0,
  next_at datetime(6) not null,
  lease_until datetime(6) null,
  sent_at datetime(6) null,
  says varchar(300) not null default '',
  constraint delivery_once unique (event, channel, receiver),
  constraint delivery_state check (state in ('WAITING','SENT','NEEDLESS','FAILED')),
  key delivery_next (state, next_at),
  key delivery_ask (ask),
  constraint delivery_event foreign key (event) references outbox_event (id),
  constraint delivery_receiver foreign key (receiver) references person (id),
  constraint delivery_ask foreign key (ask) references ask (id)
);
