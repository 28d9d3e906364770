-- From which shipped file an edition was made, by its hash; none for one that a house drew. Until now all were shipped.
alter table route_edition add column if not exists shipped binary(32) null;
update route_edition set shipped = unhex(repeat('00', 32)) where shipped is null;
