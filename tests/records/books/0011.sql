BEGIN TRANSACTION;
CREATE TABLE act (
	id VARCHAR NOT NULL, 
	job_id VARCHAR NOT NULL, 
	number INTEGER NOT NULL, 
	name VARCHAR NOT NULL, 
	changes JSON NOT NULL, 
	CONSTRAINT pk_act PRIMARY KEY (id), 
	CONSTRAINT fk_act_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE TABLE alembic_version (
	version_num VARCHAR(32) NOT NULL, 
	CONSTRAINT alembic_version_pkc PRIMARY KEY (version_num)
);
INSERT INTO "alembic_version" VALUES('0011');
CREATE TABLE bench (
	name VARCHAR NOT NULL, 
	element VARCHAR NOT NULL, 
	ranges JSON NOT NULL, 
	corrected BOOLEAN NOT NULL, 
	scale_density DOUBLE, 
	orifice_diameter DOUBLE, 
	orifice_pipe DOUBLE, 
	orifice_coefficient DOUBLE, 
	blower_limit DOUBLE, 
	test_pressure DOUBLE, 
	dial_resolution DOUBLE, 
	link VARCHAR NOT NULL, 
	address VARCHAR NOT NULL, 
	text_format JSON NOT NULL, 
	plate_name VARCHAR NOT NULL, 
	plate_flow DOUBLE, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, element_place VARCHAR, leak_taken_off BOOLEAN DEFAULT '0' NOT NULL, easy_dial DOUBLE, easy_factor DOUBLE, easy_leak DOUBLE, 
	CONSTRAINT pk_bench PRIMARY KEY (id)
);
INSERT INTO "bench" VALUES('back-room','flow','[]',1,NULL,NULL,NULL,NULL,1.15627123583999957823e-01,6974.48948,2.54e-05,'simulated','','{}','brass plate',7.17360113663999682254e-02,'bench-back-room',0,'{}',NULL,0,NULL,NULL,NULL);
INSERT INTO "bench" VALUES('the barn','percent','[0.035396058239999986, 0.07079211647999997, 0.14158423295999994]',0,1.2014,NULL,NULL,NULL,NULL,6974.48948,NULL,'typed','','{}','',NULL,'bench-barn',0,'{}',NULL,0,NULL,NULL,NULL);
CREATE TABLE binned (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	noun VARCHAR NOT NULL, 
	name VARCHAR NOT NULL, 
	parent_id VARCHAR NOT NULL, 
	at INTEGER NOT NULL, 
	document JSON NOT NULL, 
	reason VARCHAR NOT NULL, 
	date VARCHAR, 
	position INTEGER NOT NULL, 
	job_id VARCHAR NOT NULL, 
	CONSTRAINT pk_binned PRIMARY KEY (id), 
	CONSTRAINT fk_binned_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE TABLE bolt (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	name VARCHAR NOT NULL, 
	at JSON NOT NULL, 
	position INTEGER NOT NULL, 
	face_id VARCHAR NOT NULL, 
	CONSTRAINT pk_bolt PRIMARY KEY (id), 
	CONSTRAINT fk_bolt_face_id_face FOREIGN KEY(face_id) REFERENCES face (id) ON DELETE CASCADE
);
CREATE TABLE call (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	cut_id VARCHAR NOT NULL, 
	date VARCHAR NOT NULL, 
	lifts JSON NOT NULL, 
	flows JSON NOT NULL, 
	best_place VARCHAR NOT NULL, 
	gains VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	job_id VARCHAR NOT NULL, 
	CONSTRAINT pk_call PRIMARY KEY (id), 
	CONSTRAINT fk_call_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE TABLE cam_point (
	job_id VARCHAR NOT NULL, 
	kind VARCHAR NOT NULL, 
	angle DOUBLE NOT NULL, 
	lift DOUBLE NOT NULL, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	CONSTRAINT pk_cam_point PRIMARY KEY (id), 
	CONSTRAINT fk_cam_point_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE TABLE chamber (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	cylinder INTEGER NOT NULL, 
	head_id VARCHAR, 
	position INTEGER NOT NULL, 
	job_id VARCHAR NOT NULL, 
	CONSTRAINT pk_chamber PRIMARY KEY (id), 
	CONSTRAINT fk_chamber_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
INSERT INTO "chamber" VALUES('chamber-1','{}',1,NULL,0,'demo-corvane-22h');
CREATE TABLE check_mark (
	job_id VARCHAR NOT NULL, 
	item VARCHAR NOT NULL, 
	initials VARCHAR NOT NULL, 
	date VARCHAR, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	CONSTRAINT pk_check_mark PRIMARY KEY (id), 
	CONSTRAINT fk_check_mark_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE TABLE correction (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	what VARCHAR NOT NULL, 
	was VARCHAR NOT NULL, 
	became VARCHAR NOT NULL, 
	reason VARCHAR NOT NULL, 
	date VARCHAR, 
	position INTEGER NOT NULL, 
	flow_run_id VARCHAR NOT NULL, 
	CONSTRAINT pk_correction PRIMARY KEY (id), 
	CONSTRAINT fk_correction_flow_run_id_flow_run FOREIGN KEY(flow_run_id) REFERENCES flow_run (id) ON DELETE CASCADE
);
CREATE TABLE "cut" (
	port_id VARCHAR NOT NULL, 
	number INTEGER NOT NULL, 
	name VARCHAR NOT NULL, 
	date VARCHAR, 
	throat_diameter DOUBLE, 
	floor_length DOUBLE, 
	roof_length DOUBLE, 
	note VARCHAR NOT NULL, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	bowl_diameter DOUBLE, 
	guide_diameter DOUBLE, 
	guide_length DOUBLE, 
	boss_width DOUBLE, 
	boss_shape VARCHAR, 
	opening_width DOUBLE, 
	opening_height DOUBLE, 
	opening_corner DOUBLE, 
	pinch_width DOUBLE, 
	pinch_height DOUBLE, 
	hole_spacing DOUBLE, 
	short_side_height DOUBLE, 
	short_side_radius DOUBLE, 
	port_angle DOUBLE, 
	seat_width DOUBLE, 
	seat_margin DOUBLE, 
	gasket_land DOUBLE, 
	expected_gain DOUBLE, 
	expected_growth DOUBLE, 
	expected_time DOUBLE, 
	pinch_corner DOUBLE, 
	kinds JSON DEFAULT '["port"]' NOT NULL, 
	valve_ids JSON DEFAULT '[]' NOT NULL, 
	seat_ids JSON DEFAULT '[]' NOT NULL, 
	expected_low DOUBLE, 
	expected_high DOUBLE, 
	expected_by VARCHAR NOT NULL, 
	CONSTRAINT pk_cut PRIMARY KEY (id), 
	CONSTRAINT fk_cut_port_id_port FOREIGN KEY(port_id) REFERENCES port (id) ON DELETE CASCADE
);
INSERT INTO "cut" VALUES('intake',0,'as cast','2026-05-04',0.0395,0.094,0.114,'','intake-0',0,'{}',0.039,0.0125,0.009,0.017,'round',0.03,0.042,0.008,0.0258,0.0425,0.0334,0.024,0.009,0.488692190558412,NULL,0.0006,0.0065,NULL,NULL,NULL,NULL,'["port"]','[]','[]',NULL,NULL,'');
INSERT INTO "cut" VALUES('intake',1,'bowl blend','2026-05-05',0.0395,NULL,NULL,'','intake-1',1,'{}',0.0404,NULL,NULL,0.0154,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0.002359737216,1.5e-06,2700.0,NULL,'["port"]','[]','[]',NULL,NULL,'');
INSERT INTO "cut" VALUES('intake',2,'throat and short side','2026-05-06',0.0418,NULL,NULL,'','intake-2',2,'{}',0.0426,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0.012,NULL,0.0014,NULL,NULL,0.0037755795456,2.0e-06,4200.0,NULL,'["port"]','[]','[]',NULL,NULL,'');
INSERT INTO "cut" VALUES('intake',3,'guide to a fin','2026-05-07',0.0418,NULL,NULL,'','intake-3',3,'{}',NULL,NULL,NULL,0.009,'fin',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,'["port"]','[]','[]',NULL,NULL,'');
INSERT INTO "cut" VALUES('exhaust',0,'as cast','2026-05-08',0.0325,0.058,0.074,'','exhaust-0',0,'{}',0.0335,0.0125,0.011,0.016,NULL,0.033,0.03,0.009,NULL,NULL,NULL,0.018,0.007,0.383972435438752,NULL,NULL,NULL,NULL,NULL,NULL,NULL,'["port"]','[]','[]',NULL,NULL,'');
INSERT INTO "cut" VALUES('exhaust',1,'bowl blend','2026-05-09',0.0325,NULL,NULL,'','exhaust-1',1,'{}',0.0344,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,'["port"]','[]','[]',NULL,NULL,'');
INSERT INTO "cut" VALUES('exhaust',2,'80 grit','2026-05-10',0.0325,NULL,NULL,'','exhaust-2',2,'{}',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,'["port"]','[]','[]',NULL,NULL,'');
INSERT INTO "cut" VALUES('intake-4',0,'as cast','2026-05-12',NULL,NULL,NULL,'','intake-4-0',0,'{}',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,'["port"]','[]','[]',NULL,NULL,'');
INSERT INTO "cut" VALUES('intake-4',1,'left of the bowl','2026-05-12',NULL,NULL,NULL,'','intake-4-1',1,'{}',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,'["port"]','[]','[]',NULL,NULL,'');
INSERT INTO "cut" VALUES('intake-4',2,'valve job, street v1','2026-05-13',NULL,NULL,NULL,'','intake-4-2',2,'{}',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,'["seat"]','[]','["seat-1"]',NULL,NULL,'');
INSERT INTO "cut" VALUES('intake-3',0,'as cast','2026-05-14',0.0395,NULL,NULL,'','intake-3-0',0,'{}',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,'["port"]','[]','[]',NULL,NULL,'');
INSERT INTO "cut" VALUES('intake-3',1,'bowl blend','2026-05-15',0.0395,NULL,NULL,'','intake-3-1',1,'{}',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,'["port"]','[]','[]',NULL,NULL,'');
INSERT INTO "cut" VALUES('intake-3',2,'throat and short side','2026-05-16',0.0418,NULL,NULL,'','intake-3-2',2,'{}',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,'["port"]','[]','[]',NULL,NULL,'');
CREATE TABLE cut_index (
	cut_id VARCHAR NOT NULL, 
	job_id VARCHAR NOT NULL, 
	port_name VARCHAR NOT NULL, 
	direction VARCHAR NOT NULL, 
	number INTEGER NOT NULL, 
	name VARCHAR NOT NULL, 
	newest BOOLEAN NOT NULL, 
	section DOUBLE, 
	throat DOUBLE, 
	valve DOUBLE, 
	volume DOUBLE, 
	is_share BOOLEAN NOT NULL, 
	setup JSON NOT NULL, 
	gain DOUBLE, 
	seconds DOUBLE, 
	curve JSON NOT NULL, 
	CONSTRAINT pk_cut_index PRIMARY KEY (cut_id), 
	CONSTRAINT fk_cut_index_cut_id_cut FOREIGN KEY(cut_id) REFERENCES cut (id) ON DELETE CASCADE, 
	CONSTRAINT fk_cut_index_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE TABLE engine_result (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	kind VARCHAR NOT NULL, 
	moment VARCHAR NOT NULL, 
	date VARCHAR, 
	speeds JSON NOT NULL, 
	powers JSON NOT NULL, 
	time DOUBLE, 
	speed DOUBLE, 
	fuel DOUBLE, 
	also_changed VARCHAR NOT NULL, 
	conditions VARCHAR NOT NULL, 
	correction VARCHAR NOT NULL, 
	note VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	job_id VARCHAR NOT NULL, 
	CONSTRAINT pk_engine_result PRIMARY KEY (id), 
	CONSTRAINT fk_engine_result_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE TABLE face (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	name VARCHAR NOT NULL, 
	part VARCHAR NOT NULL, 
	source VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	job_id VARCHAR NOT NULL, 
	CONSTRAINT pk_face PRIMARY KEY (id), 
	CONSTRAINT fk_face_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE TABLE fault (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	kind VARCHAR NOT NULL, 
	place VARCHAR NOT NULL, 
	side VARCHAR, 
	along DOUBLE, 
	across DOUBLE NOT NULL, 
	from_hour DOUBLE, 
	to_hour DOUBLE, 
	size DOUBLE, 
	state VARCHAR NOT NULL, 
	seen_at_cut INTEGER NOT NULL, 
	gone_at_cut INTEGER, 
	photo VARCHAR NOT NULL, 
	date VARCHAR, 
	note VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	port_id VARCHAR NOT NULL, 
	CONSTRAINT pk_fault PRIMARY KEY (id), 
	CONSTRAINT fk_fault_port_id_port FOREIGN KEY(port_id) REFERENCES port (id) ON DELETE CASCADE
);
INSERT INTO "fault" VALUES('fault-1','{}','overhang','bowl',NULL,NULL,0.0,3.0,5.0,0.000762,'open',0,1,'','2026-05-03','',0,'intake');
INSERT INTO "fault" VALUES('fault-2','{}','flash','roof','roof',NULL,0.0,NULL,NULL,NULL,'open',0,3,'','2026-05-03','',1,'intake');
INSERT INTO "fault" VALUES('fault-3','{}','off gasket','opening','left',NULL,0.0,NULL,NULL,0.00127,'left',0,NULL,'','2026-05-03','',2,'intake');
INSERT INTO "fault" VALUES('fault-4','{}','overhang','bowl',NULL,NULL,0.0,8.0,10.0,0.000635,'open',0,1,'','2026-05-03','',0,'exhaust');
INSERT INTO "fault" VALUES('fault-5','{}','ledge','short side','floor',NULL,0.0,NULL,NULL,0.000508,'open',0,NULL,'','2026-05-03','',1,'exhaust');
INSERT INTO "fault" VALUES('fault-6','{}','overhang','bowl',NULL,NULL,0.0,2.0,6.0,0.001016,'open',0,NULL,'','2026-05-03','',0,'intake-4');
INSERT INTO "fault" VALUES('fault-7','{}','core shift','bowl','right',NULL,0.0,NULL,NULL,NULL,'open',0,NULL,'','2026-05-03','right wall thin, left thick',1,'intake-4');
CREATE TABLE flow_run (
	cut_id VARCHAR, 
	trial_id VARCHAR, 
	setup_id VARCHAR NOT NULL, 
	mount_id VARCHAR, 
	date VARCHAR, 
	source VARCHAR NOT NULL, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, witness_id VARCHAR, claimed VARCHAR, stands_for_port_ids JSON DEFAULT '[]' NOT NULL, 
	CONSTRAINT pk_flow_run PRIMARY KEY (id), 
	CONSTRAINT fk_flow_run_cut_id_cut FOREIGN KEY(cut_id) REFERENCES cut (id) ON DELETE CASCADE, 
	CONSTRAINT fk_flow_run_mount_id_mount FOREIGN KEY(mount_id) REFERENCES mount (id), 
	CONSTRAINT fk_flow_run_setup_id_setup FOREIGN KEY(setup_id) REFERENCES setup (id), 
	CONSTRAINT fk_flow_run_trial_id_trial FOREIGN KEY(trial_id) REFERENCES trial (id) ON DELETE CASCADE
);
INSERT INTO "flow_run" VALUES('intake-0',NULL,'setup-intake','mount-1','2026-05-04','simulated bench','intake-0-run',0,'{}',NULL,NULL,'[]');
INSERT INTO "flow_run" VALUES('intake-1',NULL,'setup-intake','mount-2','2026-05-05','simulated bench','intake-1-run',0,'{}',NULL,NULL,'[]');
INSERT INTO "flow_run" VALUES('intake-2',NULL,'setup-intake','mount-3','2026-05-06','simulated bench','intake-2-run',0,'{}',NULL,NULL,'[]');
INSERT INTO "flow_run" VALUES('intake-3',NULL,'setup-intake','mount-4','2026-05-07','simulated bench','intake-3-run',0,'{}',NULL,NULL,'[]');
INSERT INTO "flow_run" VALUES('exhaust-0',NULL,'setup-exhaust','mount-5','2026-05-08','simulated bench','exhaust-0-run',0,'{}',NULL,NULL,'[]');
INSERT INTO "flow_run" VALUES('exhaust-1',NULL,'setup-exhaust','mount-6','2026-05-09','simulated bench','exhaust-1-run',0,'{}',NULL,NULL,'[]');
INSERT INTO "flow_run" VALUES('exhaust-2',NULL,'setup-exhaust','mount-7','2026-05-10','simulated bench','exhaust-2-run',0,'{}',NULL,NULL,'[]');
INSERT INTO "flow_run" VALUES('intake-3-0',NULL,'setup-bare','mount-b0','2026-05-14','simulated bench','bridge-1',0,'{}',NULL,NULL,'[]');
INSERT INTO "flow_run" VALUES('intake-3-1',NULL,'setup-bare','mount-b1','2026-05-15','simulated bench','bridge-2',0,'{}',NULL,NULL,'[]');
INSERT INTO "flow_run" VALUES('intake-3-1',NULL,'setup-radius','mount-b2','2026-05-15','simulated bench','bridge-3',1,'{}',NULL,NULL,'[]');
INSERT INTO "flow_run" VALUES('intake-3-2',NULL,'setup-radius','mount-b3','2026-05-16','simulated bench','bridge-4',0,'{}',NULL,NULL,'[]');
CREATE TABLE head (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	name VARCHAR NOT NULL, 
	casting VARCHAR NOT NULL, 
	milled DOUBLE, 
	flatness DOUBLE, 
	position INTEGER NOT NULL, 
	job_id VARCHAR NOT NULL, 
	CONSTRAINT pk_head PRIMARY KEY (id), 
	CONSTRAINT fk_head_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE TABLE "job" (
	title VARCHAR NOT NULL, 
	note VARCHAR NOT NULL, 
	bore DOUBLE, 
	cam_lift DOUBLE, 
	cam_duration DOUBLE, 
	worthwhile_gain DOUBLE, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	material VARCHAR, 
	cylinders INTEGER, 
	valves_per_cylinder INTEGER, 
	flatness DOUBLE, 
	condition VARCHAR DEFAULT ('') NOT NULL, 
	stroke DOUBLE, 
	rod_length DOUBLE, 
	speed_low DOUBLE, 
	speed_high DOUBLE, 
	power_wanted DOUBLE, 
	exhaust_cam_lift DOUBLE, 
	exhaust_cam_duration DOUBLE, 
	volume_ceiling DOUBLE, 
	schools JSON DEFAULT '{}' NOT NULL, 
	cam_checked_at VARCHAR, 
	rocker_ratio DOUBLE, 
	test_pressure DOUBLE, 
	use VARCHAR, 
	customer VARCHAR DEFAULT ('') NOT NULL, 
	promise_date VARCHAR, 
	state VARCHAR DEFAULT 'open' NOT NULL, 
	waits_for VARCHAR DEFAULT ('') NOT NULL, 
	handed_over VARCHAR, 
	archived BOOLEAN DEFAULT '0' NOT NULL, 
	binned VARCHAR, 
	intake_centreline DOUBLE, 
	exhaust_centreline DOUBLE, 
	compression_ratio DOUBLE, 
	intake_lash DOUBLE, 
	exhaust_lash DOUBLE, 
	induction VARCHAR, 
	induction_flow DOUBLE, 
	induction_pressure DOUBLE, 
	manifold_pressure DOUBLE, 
	manifold_temperature DOUBLE, 
	exhaust_pressure DOUBLE, 
	stop_below DOUBLE, 
	lowest_speed DOUBLE, 
	quoted DOUBLE, 
	rate DOUBLE, 
	consumables DOUBLE, 
	volume_tolerance DOUBLE, 
	flow_tolerance DOUBLE, 
	stages JSON NOT NULL, practice VARCHAR DEFAULT '' NOT NULL, 
	CONSTRAINT pk_job PRIMARY KEY (id)
);
INSERT INTO "job" VALUES('Corvane 22H head','An invented head on an invented bench. Every figure comes from the simulated bench.',0.089,0.011684,3.83972435438753,0.0009438948864,'demo-corvane-22h',0,'{}','aluminium',4,2,3.0e-05,'No cracks seen. Light corrosion at the front water passage. Bought with the seats cut once.',0.0885,0.152,261.799387799149,712.094334813686,118000.0,0.011176,3.9095375244673,0.000126,'{}',NULL,NULL,NULL,NULL,'',NULL,'open','',NULL,0,NULL,1.88495559215388,1.98967534727354,10.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,'[]','');
CREATE TABLE "job_index" (
	job_id VARCHAR NOT NULL, 
	state VARCHAR NOT NULL, 
	text VARCHAR NOT NULL, 
	casting VARCHAR NOT NULL, 
	date VARCHAR, 
	cuts INTEGER NOT NULL, 
	runs INTEGER NOT NULL, 
	hours DOUBLE, 
	evidence JSON NOT NULL, 
	outcomes JSON NOT NULL, 
	powers JSON NOT NULL, 
	CONSTRAINT pk_job_index PRIMARY KEY (job_id), 
	CONSTRAINT fk_job_index_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE TABLE library_item (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	kind VARCHAR NOT NULL, 
	name VARCHAR NOT NULL, 
	source VARCHAR NOT NULL, 
	"of" VARCHAR, 
	price DOUBLE, 
	note VARCHAR NOT NULL, 
	date VARCHAR, 
	document JSON NOT NULL, 
	position INTEGER NOT NULL, 
	CONSTRAINT pk_library_item PRIMARY KEY (id)
);
CREATE TABLE mount (
	job_id VARCHAR NOT NULL, 
	number INTEGER NOT NULL, 
	date VARCHAR, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	CONSTRAINT pk_mount PRIMARY KEY (id), 
	CONSTRAINT fk_mount_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
INSERT INTO "mount" VALUES('demo-corvane-22h',1,'2026-05-04','mount-1',0,'{}');
INSERT INTO "mount" VALUES('demo-corvane-22h',2,'2026-05-05','mount-2',1,'{}');
INSERT INTO "mount" VALUES('demo-corvane-22h',3,'2026-05-06','mount-3',2,'{}');
INSERT INTO "mount" VALUES('demo-corvane-22h',4,'2026-05-07','mount-4',3,'{}');
INSERT INTO "mount" VALUES('demo-corvane-22h',5,'2026-05-08','mount-5',4,'{}');
INSERT INTO "mount" VALUES('demo-corvane-22h',6,'2026-05-09','mount-6',5,'{}');
INSERT INTO "mount" VALUES('demo-corvane-22h',7,'2026-05-10','mount-7',6,'{}');
INSERT INTO "mount" VALUES('demo-corvane-22h',11,'2026-05-14','mount-b0',7,'{}');
INSERT INTO "mount" VALUES('demo-corvane-22h',12,'2026-05-15','mount-b1',8,'{}');
INSERT INTO "mount" VALUES('demo-corvane-22h',13,'2026-05-15','mount-b2',9,'{}');
INSERT INTO "mount" VALUES('demo-corvane-22h',14,'2026-05-16','mount-b3',10,'{}');
CREATE TABLE my_lift (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	kind VARCHAR NOT NULL, 
	lift DOUBLE NOT NULL, 
	name VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	job_id VARCHAR NOT NULL, 
	CONSTRAINT pk_my_lift PRIMARY KEY (id), 
	CONSTRAINT fk_my_lift_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
INSERT INTO "my_lift" VALUES('mine-1','{}','intake',0.00508,'just open',0,'demo-corvane-22h');
INSERT INTO "my_lift" VALUES('mine-2','{}','intake',0.01143,'full',1,'demo-corvane-22h');
INSERT INTO "my_lift" VALUES('mine-3','{}','exhaust',0.00508,'just open',2,'demo-corvane-22h');
INSERT INTO "my_lift" VALUES('mine-4','{}','exhaust',0.01016,'full',3,'demo-corvane-22h');
CREATE TABLE observation (
	cut_id VARCHAR NOT NULL, 
	kind VARCHAR NOT NULL, 
	text VARCHAR NOT NULL, 
	lift DOUBLE, 
	date VARCHAR, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, place VARCHAR DEFAULT '' NOT NULL, clock DOUBLE, photo VARCHAR DEFAULT '' NOT NULL, 
	CONSTRAINT pk_observation PRIMARY KEY (id), 
	CONSTRAINT fk_observation_cut_id_cut FOREIGN KEY(cut_id) REFERENCES cut (id) ON DELETE CASCADE
);
INSERT INTO "observation" VALUES('intake-1','wet','wet',0.0127,'2026-05-05','wet-1-12',0,'{}','seat',12.0,'');
INSERT INTO "observation" VALUES('intake-1','wet','wet',0.0127,'2026-05-05','wet-1-1',1,'{}','seat',1.0,'');
INSERT INTO "observation" VALUES('intake-1','wet','wet',0.0127,'2026-05-05','wet-1-3',2,'{}','seat',3.0,'');
INSERT INTO "observation" VALUES('intake-1','wet','dry',0.0127,'2026-05-05','wet-1-5',3,'{}','seat',5.0,'');
INSERT INTO "observation" VALUES('intake-1','wet','dry',0.0127,'2026-05-05','wet-1-6',4,'{}','seat',6.0,'');
INSERT INTO "observation" VALUES('intake-1','wet','splash',0.0127,'2026-05-05','wet-1-7',5,'{}','seat',7.0,'');
INSERT INTO "observation" VALUES('intake-1','wet','streak',0.0127,'2026-05-05','wet-1-9',6,'{}','seat',9.0,'');
INSERT INTO "observation" VALUES('intake-1','wet','wet',0.0127,'2026-05-05','wet-1-11',7,'{}','seat',11.0,'');
INSERT INTO "observation" VALUES('intake-1','noise','',0.01397,'2026-05-05','noise-1',8,'{}','',NULL,'');
INSERT INTO "observation" VALUES('intake-2','wet','wet',0.0127,'2026-05-06','wet-2-12',0,'{}','seat',12.0,'');
INSERT INTO "observation" VALUES('intake-2','wet','wet',0.0127,'2026-05-06','wet-2-1',1,'{}','seat',1.0,'');
INSERT INTO "observation" VALUES('intake-2','wet','wet',0.0127,'2026-05-06','wet-2-3',2,'{}','seat',3.0,'');
INSERT INTO "observation" VALUES('intake-2','wet','streak',0.0127,'2026-05-06','wet-2-5',3,'{}','seat',5.0,'');
INSERT INTO "observation" VALUES('intake-2','wet','wet',0.0127,'2026-05-06','wet-2-6',4,'{}','seat',6.0,'');
INSERT INTO "observation" VALUES('intake-2','wet','wet',0.0127,'2026-05-06','wet-2-7',5,'{}','seat',7.0,'');
INSERT INTO "observation" VALUES('intake-2','wet','streak',0.0127,'2026-05-06','wet-2-9',6,'{}','seat',9.0,'');
INSERT INTO "observation" VALUES('intake-2','wet','wet',0.0127,'2026-05-06','wet-2-11',7,'{}','seat',11.0,'');
CREATE TABLE "operation" (
	cut_id VARCHAR NOT NULL, 
	kind VARCHAR NOT NULL, 
	tool VARCHAR NOT NULL, 
	finish VARCHAR NOT NULL, 
	duration DOUBLE, 
	port_ids JSON NOT NULL, 
	note VARCHAR NOT NULL, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	tool_diameter DOUBLE, 
	started_at VARCHAR, 
	date VARCHAR, 
	stage VARCHAR DEFAULT ('') NOT NULL, 
	beyond_quote BOOLEAN NOT NULL, 
	CONSTRAINT pk_operation PRIMARY KEY (id), 
	CONSTRAINT fk_operation_cut_id_cut FOREIGN KEY(cut_id) REFERENCES cut (id) ON DELETE CASCADE
);
INSERT INTO "operation" VALUES('intake-1','ridge under the seat taken out','oval carbide burr','',2100.0,'[]','','intake-1-work-0',0,'{}',NULL,NULL,NULL,'',0);
INSERT INTO "operation" VALUES('intake-1','boss narrowed','tree carbide burr','',900.0,'[]','','intake-1-work-1',1,'{}',NULL,NULL,NULL,'',0);
INSERT INTO "operation" VALUES('intake-2','opened to 91 percent','ball stone','',2400.0,'[]','','intake-2-work-0',0,'{}',NULL,NULL,NULL,'',0);
INSERT INTO "operation" VALUES('intake-2','laid back and widened','cylinder stone','',3300.0,'[]','','intake-2-work-1',1,'{}',NULL,NULL,NULL,'',0);
INSERT INTO "operation" VALUES('intake-3','boss to a fin','small flame burr','',2700.0,'[]','','intake-3-work-0',0,'{}',NULL,NULL,NULL,'',0);
INSERT INTO "operation" VALUES('exhaust-1','ridge under the seat taken out','oval carbide burr','',1800.0,'[]','','exhaust-1-work-0',0,'{}',NULL,NULL,NULL,'',0);
INSERT INTO "operation" VALUES('exhaust-2','roll, 80 grit','abrasive roll','',1500.0,'[]','','exhaust-2-work-0',0,'{}',NULL,NULL,NULL,'',0);
INSERT INTO "operation" VALUES('intake-4-1','bowl blended on one side','oval carbide burr','',1500.0,'[]','','op-4-1',0,'{}',NULL,NULL,NULL,'',0);
INSERT INTO "operation" VALUES('intake-4-2','valve job','seat cutter','',1800.0,'[]','','op-4-2',0,'{}',NULL,NULL,NULL,'valve job',0);
CREATE TABLE outline (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	port VARCHAR NOT NULL, 
	shape VARCHAR NOT NULL, 
	centre JSON NOT NULL, 
	width DOUBLE, 
	height DOUBLE, 
	corner JSON NOT NULL, 
	points JSON NOT NULL, 
	position INTEGER NOT NULL, 
	face_id VARCHAR NOT NULL, 
	CONSTRAINT pk_outline PRIMARY KEY (id), 
	CONSTRAINT fk_outline_face_id_face FOREIGN KEY(face_id) REFERENCES face (id) ON DELETE CASCADE
);
CREATE TABLE part_of_job (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	kind VARCHAR NOT NULL, 
	name VARCHAR NOT NULL, 
	state VARCHAR NOT NULL, 
	count INTEGER NOT NULL, 
	size DOUBLE, 
	port_ids JSON NOT NULL, 
	price DOUBLE, 
	beyond_quote BOOLEAN NOT NULL, 
	date VARCHAR, 
	note VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	job_id VARCHAR NOT NULL, 
	CONSTRAINT pk_part_of_job PRIMARY KEY (id), 
	CONSTRAINT fk_part_of_job_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE TABLE photo (
	job_id VARCHAR, 
	cut_id VARCHAR, 
	file VARCHAR NOT NULL, 
	moment VARCHAR NOT NULL, 
	caption VARCHAR NOT NULL, 
	date VARCHAR, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	CONSTRAINT pk_photo PRIMARY KEY (id), 
	CONSTRAINT fk_photo_cut_id_cut FOREIGN KEY(cut_id) REFERENCES cut (id) ON DELETE CASCADE, 
	CONSTRAINT fk_photo_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE TABLE plate_check (
	bench_id VARCHAR NOT NULL, 
	nominal DOUBLE NOT NULL, 
	flow DOUBLE NOT NULL, 
	pressure DOUBLE, 
	date VARCHAR, 
	struck VARCHAR, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	CONSTRAINT pk_plate_check PRIMARY KEY (id), 
	CONSTRAINT fk_plate_check_bench_id_bench FOREIGN KEY(bench_id) REFERENCES bench (id) ON DELETE CASCADE
);
INSERT INTO "plate_check" VALUES('bench-back-room',7.17360113663999682254e-02,7.1547232389119974627e-02,6974.48948,'2026-05-04',NULL,'plate-0',0,'{}');
INSERT INTO "plate_check" VALUES('bench-back-room',7.17360113663999682254e-02,7.15944271334399695572e-02,6974.48948,'2026-05-05',NULL,'plate-1',1,'{}');
INSERT INTO "plate_check" VALUES('bench-back-room',7.17360113663999682254e-02,7.1547232389119974627e-02,6974.48948,'2026-05-06',NULL,'plate-2',2,'{}');
INSERT INTO "plate_check" VALUES('bench-back-room',7.17360113663999682254e-02,7.16416218777599783651e-02,6974.48948,'2026-05-07',NULL,'plate-3',3,'{}');
INSERT INTO "plate_check" VALUES('bench-back-room',7.17360113663999682254e-02,7.19247903436799757015e-02,6974.48948,'2026-05-08',NULL,'plate-4',4,'{}');
INSERT INTO "plate_check" VALUES('bench-back-room',7.17360113663999682254e-02,7.1547232389119974627e-02,6974.48948,'2026-05-09',NULL,'plate-5',5,'{}');
INSERT INTO "plate_check" VALUES('bench-back-room',7.17360113663999682254e-02,7.18775955993599807714e-02,6974.48948,'2026-05-10',NULL,'plate-6',6,'{}');
INSERT INTO "plate_check" VALUES('bench-back-room',7.17360113663999682254e-02,7.18775955993599807714e-02,6974.48948,'2026-05-11',NULL,'plate-7',7,'{}');
INSERT INTO "plate_check" VALUES('bench-back-room',7.17360113663999682254e-02,7.16888166220799732952e-02,6974.48948,'2026-05-12',NULL,'plate-8',8,'{}');
CREATE TABLE "port" (
	job_id VARCHAR NOT NULL, 
	name VARCHAR NOT NULL, 
	kind VARCHAR NOT NULL, 
	valve_id VARCHAR, 
	valves INTEGER NOT NULL, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	witness BOOLEAN DEFAULT 0 NOT NULL, 
	cylinder INTEGER, 
	mirror_of VARCHAR, 
	head_id VARCHAR, 
	position_on_head INTEGER, 
	piece VARCHAR NOT NULL, 
	CONSTRAINT pk_port PRIMARY KEY (id), 
	CONSTRAINT fk_port_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
INSERT INTO "port" VALUES('demo-corvane-22h','Intake 1','intake','valve-intake',1,'intake',0,'{}',0,NULL,NULL,NULL,NULL,'');
INSERT INTO "port" VALUES('demo-corvane-22h','Exhaust 1','exhaust','valve-exhaust',1,'exhaust',1,'{}',0,NULL,NULL,NULL,NULL,'');
INSERT INTO "port" VALUES('demo-corvane-22h','Intake 4','intake','valve-intake',1,'intake-4',2,'{}',0,4,NULL,NULL,NULL,'');
INSERT INTO "port" VALUES('demo-corvane-22h','Intake 3','intake','valve-intake',1,'intake-3',3,'{}',0,3,NULL,NULL,NULL,'');
CREATE TABLE "pour" (
	cut_id VARCHAR, 
	volume DOUBLE NOT NULL, 
	how VARCHAR NOT NULL, 
	date VARCHAR, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	chamber_id VARCHAR, 
	CONSTRAINT pk_pour PRIMARY KEY (id), 
	CONSTRAINT fk_pour_cut_id_cut FOREIGN KEY(cut_id) REFERENCES cut (id) ON DELETE CASCADE, 
	CONSTRAINT fk_pour_chamber_id_chamber FOREIGN KEY(chamber_id) REFERENCES chamber (id) ON DELETE CASCADE
);
INSERT INTO "pour" VALUES(NULL,4.75e-05,'',NULL,'chamber-1-1',0,'{}','chamber-1');
INSERT INTO "pour" VALUES('intake-0',0.0001181,'burette and plate, valve in',NULL,'intake-0-pour-1',0,'{}',NULL);
INSERT INTO "pour" VALUES('intake-0',0.0001179,'burette and plate, valve in',NULL,'intake-0-pour-2',1,'{}',NULL);
INSERT INTO "pour" VALUES('intake-1',0.0001196,'burette and plate, valve in',NULL,'intake-1-pour',0,'{}',NULL);
INSERT INTO "pour" VALUES('intake-2',0.0001219,'burette and plate, valve in',NULL,'intake-2-pour',0,'{}',NULL);
INSERT INTO "pour" VALUES('intake-3',0.0001223,'burette and plate, valve in',NULL,'intake-3-pour',0,'{}',NULL);
INSERT INTO "pour" VALUES('exhaust-0',6.4e-05,'burette and plate, valve in',NULL,'exhaust-0-pour',0,'{}',NULL);
INSERT INTO "pour" VALUES('exhaust-1',6.51e-05,'burette and plate, valve in',NULL,'exhaust-1-pour',0,'{}',NULL);
INSERT INTO "pour" VALUES('exhaust-2',6.52e-05,'burette and plate, valve in',NULL,'exhaust-2-pour',0,'{}',NULL);
CREATE TABLE "probe_point" (
	traverse_id VARCHAR NOT NULL, 
	name VARCHAR NOT NULL, 
	reading DOUBLE, 
	struck VARCHAR, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	u DOUBLE DEFAULT '0' NOT NULL, 
	v DOUBLE DEFAULT '0' NOT NULL, 
	speed DOUBLE, 
	flow DOUBLE, static DOUBLE, 
	CONSTRAINT pk_probe_point PRIMARY KEY (id), 
	CONSTRAINT fk_probe_point_traverse_id_traverse FOREIGN KEY(traverse_id) REFERENCES traverse (id) ON DELETE CASCADE
);
INSERT INTO "probe_point" VALUES('intake-1-opening-pitot','roof left',3786.151432,NULL,'intake-1-opening-roof left',0,'{}',-0.774597,0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-opening-pitot','roof centre',4134.875906,NULL,'intake-1-opening-roof centre',1,'{}',0.0,0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-opening-pitot','roof right',4184.693688,NULL,'intake-1-opening-roof right',2,'{}',0.774597,0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-opening-pitot','middle left',3860.878105,NULL,'intake-1-opening-middle left',3,'{}',-0.774597,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-opening-pitot','centre',4035.240342,NULL,'intake-1-opening-centre',4,'{}',0.0,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-opening-pitot','middle right',4085.058124,NULL,'intake-1-opening-middle right',5,'{}',0.774597,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-opening-pitot','floor left',3736.33365,NULL,'intake-1-opening-floor left',6,'{}',-0.774597,-0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-opening-pitot','floor centre',3811.060323,NULL,'intake-1-opening-floor centre',7,'{}',0.0,-0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-opening-pitot','floor right',3835.969214,NULL,'intake-1-opening-floor right',8,'{}',0.774597,-0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-pitot','roof left',4383.964816,NULL,'intake-1-pinch-roof left',0,'{}',-0.774597,0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-pitot','roof centre',5529.773802,NULL,'intake-1-pinch-roof centre',1,'{}',0.0,0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-pitot','roof right',6277.040532,NULL,'intake-1-pinch-roof right',2,'{}',0.774597,0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-pitot','middle left',4159.784797,NULL,'intake-1-pinch-middle left',3,'{}',-0.774597,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-pitot','centre',5056.504873,NULL,'intake-1-pinch-centre',4,'{}',0.0,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-pitot','middle right',5828.680494,NULL,'intake-1-pinch-middle right',5,'{}',0.774597,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-pitot','floor left',3412.518067,NULL,'intake-1-pinch-floor left',6,'{}',-0.774597,-0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-pitot','floor centre',4209.602579,NULL,'intake-1-pinch-floor centre',7,'{}',0.0,-0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-pitot','floor right',4956.869309,NULL,'intake-1-pinch-floor right',8,'{}',0.774597,-0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-pitot','roof left',5579.591584,NULL,'intake-1-short side-roof left',0,'{}',-0.683122,0.67351,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-pitot','roof centre',5928.316058,NULL,'intake-1-short side-roof centre',1,'{}',0.0,0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-pitot','roof right',6800.127243,NULL,'intake-1-short side-roof right',2,'{}',0.683122,0.67351,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-pitot','middle left',6426.493878,NULL,'intake-1-short side-middle left',3,'{}',-0.774597,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-pitot','centre',7099.033935,NULL,'intake-1-short side-centre',4,'{}',0.0,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-pitot','middle right',7821.391774,NULL,'intake-1-short side-middle right',5,'{}',0.774597,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-pitot','floor left',3561.971413,NULL,'intake-1-short side-floor left',6,'{}',-0.683122,-0.67351,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-pitot','floor centre',2789.795792,NULL,'intake-1-short side-floor centre',7,'{}',0.0,-0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-pitot','floor right',4159.784797,NULL,'intake-1-short side-floor right',8,'{}',0.683122,-0.67351,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-seat-pitot','12 o''clock',5679.227148,NULL,'intake-1-seat-12 o''clock',0,'{}',0.0,0.758,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-seat-pitot','1 o''clock',5704.136039,NULL,'intake-1-seat-1 o''clock',1,'{}',0.379,0.656447,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-seat-pitot','2 o''clock',5853.589385,NULL,'intake-1-seat-2 o''clock',2,'{}',0.656447,0.379,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-seat-pitot','3 o''clock',5679.227148,NULL,'intake-1-seat-3 o''clock',3,'{}',0.758,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-seat-pitot','4 o''clock',4234.51147,NULL,'intake-1-seat-4 o''clock',4,'{}',0.656447,-0.379,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-seat-pitot','5 o''clock',2515.797991,NULL,'intake-1-seat-5 o''clock',5,'{}',0.379,-0.656447,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-seat-pitot','6 o''clock',1793.440152,NULL,'intake-1-seat-6 o''clock',6,'{}',0.0,-0.758,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-seat-pitot','7 o''clock',2341.435754,NULL,'intake-1-seat-7 o''clock',7,'{}',-0.379,-0.656447,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-seat-pitot','8 o''clock',3113.611375,NULL,'intake-1-seat-8 o''clock',8,'{}',-0.656447,-0.379,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-seat-pitot','9 o''clock',4234.51147,NULL,'intake-1-seat-9 o''clock',9,'{}',-0.758,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-seat-pitot','10 o''clock',5006.687091,NULL,'intake-1-seat-10 o''clock',10,'{}',-0.656447,0.379,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-seat-pitot','11 o''clock',5230.86711,NULL,'intake-1-seat-11 o''clock',11,'{}',-0.379,0.656447,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-ball','roof left',NULL,NULL,'intake-1-pinch-ball-roof left',0,'{}',-0.774597,0.774597,NULL,0.08410103437824,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-ball','roof centre',NULL,NULL,'intake-1-pinch-ball-roof centre',1,'{}',0.0,0.774597,NULL,0.08348750270208,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-ball','roof right',NULL,NULL,'intake-1-pinch-ball-roof right',2,'{}',0.774597,0.774597,NULL,0.0830627500032,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-ball','middle left',NULL,NULL,'intake-1-pinch-ball-middle left',3,'{}',-0.774597,0.0,NULL,0.08428981335552,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-ball','centre',NULL,NULL,'intake-1-pinch-ball-centre',4,'{}',0.0,0.0,NULL,0.08391225540096,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-ball','middle right',NULL,NULL,'intake-1-pinch-ball-middle right',5,'{}',0.774597,0.0,NULL,0.08315713949184,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-ball','floor left',NULL,NULL,'intake-1-pinch-ball-floor left',6,'{}',-0.774597,-0.774597,NULL,0.084950539776,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-ball','floor centre',NULL,NULL,'intake-1-pinch-ball-floor centre',7,'{}',0.0,-0.774597,NULL,0.08428981335552,NULL);
INSERT INTO "probe_point" VALUES('intake-1-pinch-ball','floor right',NULL,NULL,'intake-1-pinch-ball-floor right',8,'{}',0.774597,-0.774597,NULL,0.08395945014528,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-ball','roof left',NULL,NULL,'intake-1-short side-ball-roof left',0,'{}',-0.683122,0.67351,NULL,0.08334591846912,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-ball','roof centre',NULL,NULL,'intake-1-short side-ball-roof centre',1,'{}',0.0,0.774597,NULL,0.08325152898048,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-ball','roof right',NULL,NULL,'intake-1-short side-ball-roof right',2,'{}',0.683122,0.67351,NULL,0.08259080256,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-ball','middle left',NULL,NULL,'intake-1-short side-ball-middle left',3,'{}',-0.774597,0.0,NULL,0.0830627500032,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-ball','centre',NULL,NULL,'intake-1-short side-ball-centre',4,'{}',0.0,0.0,NULL,0.08226043934976,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-ball','middle right',NULL,NULL,'intake-1-short side-ball-middle right',5,'{}',0.774597,0.0,NULL,0.08174129716224,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-ball','floor left',NULL,NULL,'intake-1-short side-ball-floor left',6,'{}',-0.683122,-0.67351,NULL,0.08532809773056,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-ball','floor centre',NULL,NULL,'intake-1-short side-ball-floor centre',7,'{}',0.0,-0.774597,NULL,0.08532809773056,NULL);
INSERT INTO "probe_point" VALUES('intake-1-short side-ball','floor right',NULL,NULL,'intake-1-short side-ball-floor right',8,'{}',0.683122,-0.67351,NULL,0.08452578707712,NULL);
INSERT INTO "probe_point" VALUES('intake-2-opening-pitot','roof left',4707.780399,NULL,'intake-2-opening-roof left',0,'{}',-0.774597,0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-opening-pitot','roof centre',4931.960418,NULL,'intake-2-opening-roof centre',1,'{}',0.0,0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-opening-pitot','roof right',5106.322655,NULL,'intake-2-opening-roof right',2,'{}',0.774597,0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-opening-pitot','middle left',4558.327053,NULL,'intake-2-opening-middle left',3,'{}',-0.774597,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-opening-pitot','centre',4857.233745,NULL,'intake-2-opening-centre',4,'{}',0.0,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-opening-pitot','middle right',4931.960418,NULL,'intake-2-opening-middle right',5,'{}',0.774597,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-opening-pitot','floor left',4433.782598,NULL,'intake-2-opening-floor left',6,'{}',-0.774597,-0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-opening-pitot','floor centre',4633.053726,NULL,'intake-2-opening-floor centre',7,'{}',0.0,-0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-opening-pitot','floor right',4633.053726,NULL,'intake-2-opening-floor right',8,'{}',0.774597,-0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-pitot','roof left',5455.047129,NULL,'intake-2-pinch-roof left',0,'{}',-0.774597,0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-pitot','roof centre',6625.765006,NULL,'intake-2-pinch-roof centre',1,'{}',0.0,0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-pitot','roof right',7497.576191,NULL,'intake-2-pinch-roof right',2,'{}',0.774597,0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-pitot','middle left',5056.504873,NULL,'intake-2-pinch-middle left',3,'{}',-0.774597,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-pitot','centre',6052.860513,NULL,'intake-2-pinch-centre',4,'{}',0.0,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-pitot','middle right',7099.033935,NULL,'intake-2-pinch-middle right',5,'{}',0.774597,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-pitot','floor left',4558.327053,NULL,'intake-2-pinch-floor left',6,'{}',-0.774597,-0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-pitot','floor centre',5430.138238,NULL,'intake-2-pinch-floor centre',7,'{}',0.0,-0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-pitot','floor right',6376.676096,NULL,'intake-2-pinch-floor right',8,'{}',0.774597,-0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-pitot','roof left',4383.964816,NULL,'intake-2-short side-roof left',0,'{}',-0.679906,0.664056,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-pitot','roof centre',4608.144835,NULL,'intake-2-short side-roof centre',1,'{}',0.0,0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-pitot','roof right',5181.049328,NULL,'intake-2-short side-roof right',2,'{}',0.679906,0.664056,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-pitot','middle left',5181.049328,NULL,'intake-2-short side-middle left',3,'{}',-0.774597,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-pitot','centre',5604.500475,NULL,'intake-2-short side-centre',4,'{}',0.0,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-pitot','middle right',6152.496077,NULL,'intake-2-short side-middle right',5,'{}',0.774597,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-pitot','floor left',5430.138238,NULL,'intake-2-short side-floor left',6,'{}',-0.679906,-0.664056,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-pitot','floor centre',5778.862712,NULL,'intake-2-short side-floor centre',7,'{}',0.0,-0.774597,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-pitot','floor right',6451.402769,NULL,'intake-2-short side-floor right',8,'{}',0.679906,-0.664056,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-seat-pitot','12 o''clock',4433.782598,NULL,'intake-2-seat-12 o''clock',0,'{}',0.0,0.758,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-seat-pitot','1 o''clock',4558.327053,NULL,'intake-2-seat-1 o''clock',1,'{}',0.379,0.656447,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-seat-pitot','2 o''clock',4732.68929,NULL,'intake-2-seat-2 o''clock',2,'{}',0.656447,0.379,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-seat-pitot','3 o''clock',4533.418162,NULL,'intake-2-seat-3 o''clock',3,'{}',0.758,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-seat-pitot','4 o''clock',4284.329252,NULL,'intake-2-seat-4 o''clock',4,'{}',0.656447,-0.379,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-seat-pitot','5 o''clock',3611.789195,NULL,'intake-2-seat-5 o''clock',5,'{}',0.379,-0.656447,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-seat-pitot','6 o''clock',3337.791394,NULL,'intake-2-seat-6 o''clock',6,'{}',0.0,-0.758,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-seat-pitot','7 o''clock',3188.338048,NULL,'intake-2-seat-7 o''clock',7,'{}',-0.379,-0.656447,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-seat-pitot','8 o''clock',3287.973612,NULL,'intake-2-seat-8 o''clock',8,'{}',-0.656447,-0.379,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-seat-pitot','9 o''clock',3512.153631,NULL,'intake-2-seat-9 o''clock',9,'{}',-0.758,0.0,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-seat-pitot','10 o''clock',3860.878105,NULL,'intake-2-seat-10 o''clock',10,'{}',-0.656447,0.379,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-seat-pitot','11 o''clock',4234.51147,NULL,'intake-2-seat-11 o''clock',11,'{}',-0.379,0.656447,NULL,NULL,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-ball','roof left',NULL,NULL,'intake-2-pinch-ball-roof left',0,'{}',-0.774597,0.774597,NULL,0.09127463551488,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-ball','roof centre',NULL,NULL,'intake-2-pinch-ball-roof centre',1,'{}',0.0,0.774597,NULL,0.09047232486144,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-ball','roof right',NULL,NULL,'intake-2-pinch-ball-roof right',2,'{}',0.774597,0.774597,NULL,0.08948123523072,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-ball','middle left',NULL,NULL,'intake-2-pinch-ball-middle left',3,'{}',-0.774597,0.0,NULL,0.0915578039808,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-ball','centre',NULL,NULL,'intake-2-pinch-ball-centre',4,'{}',0.0,0.0,NULL,0.09089707756032,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-ball','middle right',NULL,NULL,'intake-2-pinch-ball-middle right',5,'{}',0.774597,0.0,NULL,0.08981159844096,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-ball','floor left',NULL,NULL,'intake-2-pinch-ball-floor left',6,'{}',-0.774597,-0.774597,NULL,0.09207694616832,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-ball','floor centre',NULL,NULL,'intake-2-pinch-ball-floor centre',7,'{}',0.0,-0.774597,NULL,0.09118024602624,NULL);
INSERT INTO "probe_point" VALUES('intake-2-pinch-ball','floor right',NULL,NULL,'intake-2-pinch-ball-floor right',8,'{}',0.774597,-0.774597,NULL,0.0903779353728,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-ball','roof left',NULL,NULL,'intake-2-short side-ball-roof left',0,'{}',-0.679906,0.664056,NULL,0.09207694616832,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-ball','roof centre',NULL,NULL,'intake-2-short side-ball-roof centre',1,'{}',0.0,0.774597,NULL,0.0917937777024,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-ball','roof right',NULL,NULL,'intake-2-short side-ball-roof right',2,'{}',0.679906,0.664056,NULL,0.09151060923648,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-ball','middle left',NULL,NULL,'intake-2-short side-ball-middle left',3,'{}',-0.774597,0.0,NULL,0.09169938821376,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-ball','centre',NULL,NULL,'intake-2-short side-ball-centre',4,'{}',0.0,0.0,NULL,0.09127463551488,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-ball','middle right',NULL,NULL,'intake-2-short side-ball-middle right',5,'{}',0.774597,0.0,NULL,0.0906139090944,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-ball','floor left',NULL,NULL,'intake-2-short side-ball-floor left',6,'{}',-0.679906,-0.664056,NULL,0.09127463551488,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-ball','floor centre',NULL,NULL,'intake-2-short side-ball-floor centre',7,'{}',0.0,-0.774597,NULL,0.09094427230464,NULL);
INSERT INTO "probe_point" VALUES('intake-2-short side-ball','floor right',NULL,NULL,'intake-2-short side-ball-floor right',8,'{}',0.679906,-0.664056,NULL,0.09051951960576,NULL);
CREATE TABLE "reading" (
	flow_run_id VARCHAR NOT NULL, 
	lift DOUBLE NOT NULL, 
	flow DOUBLE, 
	percent DOUBLE, 
	full_scale DOUBLE, 
	element_column DOUBLE, 
	port_column DOUBLE, 
	measured_pressure DOUBLE, 
	swirl DOUBLE, 
	spread DOUBLE, 
	window DOUBLE, 
	time VARCHAR, 
	unsteady BOOLEAN NOT NULL, 
	struck VARCHAR, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	element_pressure DOUBLE, 
	mass_flow DOUBLE, 
	returned BOOLEAN DEFAULT 0 NOT NULL, swirl_torque DOUBLE, 
	CONSTRAINT pk_reading PRIMARY KEY (id), 
	CONSTRAINT fk_reading_flow_run_id_flow_run FOREIGN KEY(flow_run_id) REFERENCES flow_run (id) ON DELETE CASCADE
);
INSERT INTO "reading" VALUES('intake-0-run',0.00127,0.012171524560128,NULL,NULL,NULL,NULL,6974.48948,-20.8392312688123,5.1914218752e-05,3.0,NULL,0,NULL,'intake-0-1',0,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-0-run',0.00254,0.023918296421376,NULL,NULL,NULL,NULL,6974.48948,-19.3731546971371,7.079211648e-05,3.0,NULL,0,NULL,'intake-0-2',1,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-0-run',0.00381,0.0364579399872,NULL,NULL,NULL,NULL,6974.48948,63.6696111127531,0.00016518160512,3.0,NULL,0,NULL,'intake-0-3',2,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-0-run',0.00508,0.048148078155264,NULL,NULL,NULL,NULL,6974.48948,119.380520836412,0.000179340028416,3.0,NULL,0,NULL,'intake-0-4',3,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-0-run',0.00635,0.057705013880064,NULL,NULL,NULL,NULL,6971.9985909,165.980811864661,0.0002359737216,3.0,NULL,0,NULL,'intake-0-5',4,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-0-run',0.00762,0.065723400940032,NULL,NULL,NULL,NULL,6974.48948,202.213847136063,0.000302046363648,3.0,NULL,0,NULL,'intake-0-6',5,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-0-run',0.00889,0.071589707659008,NULL,NULL,NULL,NULL,6974.48948,250.908533266705,0.000320924261376,3.0,NULL,0,NULL,'intake-0-7',6,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-0-run',0.01016,0.075988257829632,NULL,NULL,NULL,NULL,6974.48948,283.26693759868,0.000438911122176,3.0,NULL,0,NULL,'intake-0-8',7,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-0-run',0.01143,0.079494827332608,NULL,NULL,NULL,NULL,6974.48948,301.278735479261,0.000476666917632,3.0,NULL,0,NULL,'intake-0-9',8,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-0-run',0.0127,0.082727667318528,NULL,NULL,NULL,NULL,6974.48948,299.498499642227,0.000811749602304,3.0,NULL,0,NULL,'intake-0-10',9,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-0-run',0.01397,0.08551687670784,NULL,NULL,NULL,NULL,6974.48948,289.44540315074,0.001090198593792,3.0,NULL,0,NULL,'intake-0-11',10,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-0-run',0.01524,0.087763346537472,NULL,NULL,NULL,NULL,6974.48948,287.246288293227,0.001434720227328,3.0,NULL,0,NULL,'intake-0-12',11,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-0-run',0.00381,0.036382428396288,NULL,NULL,NULL,NULL,6974.48948,63.4601716025138,0.000169901079552,3.0,NULL,0,NULL,'intake-0-3-again',12,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-0-run',0.00762,0.065520463539456,NULL,NULL,NULL,NULL,6974.48948,211.219746076354,0.000278448991488,3.0,NULL,0,NULL,'intake-0-6-again',13,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-0-run',0.01143,0.079301328880896,NULL,NULL,NULL,NULL,6974.48948,296.252187233517,0.000589934304,3.0,NULL,0,NULL,'intake-0-9-again',14,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-1-run',0.00127,0.01241221775616,NULL,NULL,NULL,NULL,6974.48948,-20.629791758573,4.719474432e-05,3.0,NULL,0,NULL,'intake-1-1',0,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-1-run',0.00254,0.024338329645824,NULL,NULL,NULL,NULL,6974.48948,-19.1637151868977,8.9670014208e-05,3.0,NULL,0,NULL,'intake-1-2',1,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-1-run',0.00381,0.03733104275712,NULL,NULL,NULL,NULL,6976.9803691,63.3554518473942,0.000160462130688,3.0,NULL,0,NULL,'intake-1-3',2,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-1-run',0.00508,0.049497847842816,NULL,NULL,NULL,NULL,6971.9985909,122.312673979763,0.000198217926144,3.0,NULL,0,NULL,'intake-1-4',3,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-1-run',0.00635,0.059904288965376,NULL,NULL,NULL,NULL,6974.48948,165.666652599302,0.000207656875008,3.0,NULL,0,NULL,'intake-1-5',4,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-1-run',0.00762,0.067946273397504,NULL,NULL,NULL,NULL,6976.9803691,206.821516361328,0.000254851619328,3.0,NULL,0,NULL,'intake-1-6',5,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-1-run',0.00889,0.074723438681856,NULL,NULL,NULL,NULL,6974.48948,247.138622082397,0.000443630596608,3.0,NULL,0,NULL,'intake-1-7',6,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-1-run',0.01016,0.079485388383744,NULL,NULL,NULL,NULL,6974.48948,279.182867149013,0.000547459034112,3.0,NULL,0,NULL,'intake-1-8',7,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-1-run',0.01143,0.083610209037312,NULL,NULL,NULL,NULL,6974.48948,298.66074160127,0.000585214829568,3.0,NULL,0,NULL,'intake-1-9',8,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-1-run',0.0127,0.087225326452224,NULL,NULL,NULL,NULL,6976.9803691,291.853957518492,0.000901419616512,3.0,NULL,0,NULL,'intake-1-10',9,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-1-run',0.01397,0.09143981712,NULL,NULL,NULL,NULL,6974.48948,288.607645109782,0.001184588082432,3.0,NULL,0,NULL,'intake-1-11',10,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-1-run',0.01524,0.093308728995072,NULL,NULL,NULL,NULL,6974.48948,293.634193355526,0.001491353920512,3.0,NULL,0,NULL,'intake-1-12',11,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-1-run',0.00381,0.037326323282688,NULL,NULL,NULL,NULL,6974.48948,63.1460123371548,0.000151023181824,3.0,NULL,0,NULL,'intake-1-3-again',12,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-1-run',0.00762,0.068224722388992,NULL,NULL,NULL,NULL,6974.48948,207.345115136926,0.000245412670464,3.0,NULL,0,NULL,'intake-1-6-again',13,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-1-run',0.01143,0.083336479520256,NULL,NULL,NULL,NULL,6974.48948,308.399678827398,0.000722079588096,3.0,NULL,0,NULL,'intake-1-9-again',14,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-2-run',0.00127,0.011666540795904,NULL,NULL,NULL,NULL,6971.9985909,-24.5044226980004,4.719474432e-05,3.0,NULL,0,NULL,'intake-2-1',0,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-2-run',0.00254,0.022927206790656,NULL,NULL,NULL,NULL,6974.48948,-28.7979326579064,9.9108963072e-05,3.0,NULL,0,NULL,'intake-2-2',1,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-2-run',0.00381,0.035315827174656,NULL,NULL,NULL,NULL,6976.9803691,46.4955712731289,0.000146303707392,3.0,NULL,0,NULL,'intake-2-3',2,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-2-run',0.00508,0.047770520200704,NULL,NULL,NULL,NULL,6974.48948,100.321525404634,0.000221815298304,3.0,NULL,0,NULL,'intake-2-4',3,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-2-run',0.00635,0.059776863155712,NULL,NULL,NULL,NULL,6974.48948,136.135681655558,0.000254851619328,3.0,NULL,0,NULL,'intake-2-5',4,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-2-run',0.00762,0.070541984335104,NULL,NULL,NULL,NULL,6971.9985909,165.771372354421,0.000297326889216,3.0,NULL,0,NULL,'intake-2-6',5,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-2-run',0.00889,0.07982991001728,NULL,NULL,NULL,NULL,6974.48948,206.612076851089,0.000278448991488,3.0,NULL,0,NULL,'intake-2-7',6,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-2-run',0.01016,0.086135127858432,NULL,NULL,NULL,NULL,6974.48948,242.845112122491,0.00037755795456,3.0,NULL,0,NULL,'intake-2-8',7,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-2-run',0.01143,0.090547836452352,NULL,NULL,NULL,NULL,6971.9985909,277.612070822218,0.000415313750016,3.0,NULL,0,NULL,'intake-2-9',8,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-2-run',0.0127,0.097145661708288,NULL,NULL,NULL,NULL,6974.48948,304.62976764309,0.00061353167616,3.0,NULL,0,NULL,'intake-2-10',9,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-2-run',0.01397,0.101884014038016,NULL,NULL,NULL,NULL,6974.48948,338.349528791621,0.000783432755712,3.0,NULL,0,NULL,'intake-2-11',10,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-2-run',0.01524,0.105782299918848,NULL,NULL,NULL,NULL,6971.9985909,340.653363404253,0.001194027031296,3.0,NULL,0,NULL,'intake-2-12',11,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-2-run',0.00381,0.035471569830912,NULL,NULL,NULL,NULL,6974.48948,46.9144502936076,0.000127425809664,3.0,NULL,0,NULL,'intake-2-3-again',12,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-2-run',0.00762,0.070867628070912,NULL,NULL,NULL,NULL,6974.48948,168.494085987533,0.000231254247168,3.0,NULL,0,NULL,'intake-2-6-again',13,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-2-run',0.01143,0.090477044335872,NULL,NULL,NULL,NULL,6974.48948,285.884931476671,0.000358680056832,3.0,NULL,0,NULL,'intake-2-9-again',14,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-3-run',0.00127,0.01158630973056,NULL,NULL,NULL,NULL,6974.48948,-25.1327412287183,4.719474432e-05,3.0,NULL,0,NULL,'intake-3-1',0,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-3-run',0.00254,0.022809219929856,NULL,NULL,NULL,NULL,6974.48948,-29.0073721681458,8.4950539776e-05,3.0,NULL,0,NULL,'intake-3-2',1,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-3-run',0.00381,0.035245035058176,NULL,NULL,NULL,NULL,6974.48948,46.6002910282486,0.000122706335232,3.0,NULL,0,NULL,'intake-3-3',2,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-3-run',0.00508,0.04761949701888,NULL,NULL,NULL,NULL,6974.48948,99.4837673636768,0.000169901079552,3.0,NULL,0,NULL,'intake-3-4',3,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-3-run',0.00635,0.059564486806272,NULL,NULL,NULL,NULL,6974.48948,130.690254389335,0.0002359737216,3.0,NULL,0,NULL,'intake-3-5',4,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-3-run',0.00762,0.07039096115328,NULL,NULL,NULL,NULL,6974.48948,167.446888436336,0.000231254247168,3.0,NULL,0,NULL,'intake-3-6',5,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-3-run',0.00889,0.079537302602496,NULL,NULL,NULL,NULL,6971.9985909,205.774318810131,0.00033036321024,3.0,NULL,0,NULL,'intake-3-7',6,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-3-run',0.01016,0.085474401437952,NULL,NULL,NULL,NULL,6974.48948,238.132723142106,0.00040115532672,3.0,NULL,0,NULL,'intake-3-8',7,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-3-run',0.01143,0.090741334904064,NULL,NULL,NULL,NULL,6974.48948,275.412955964705,0.000405874801152,3.0,NULL,0,NULL,'intake-3-9',8,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-3-run',0.0127,0.09679642060032,NULL,NULL,NULL,NULL,6974.48948,305.467525684048,0.00049554481536,3.0,NULL,0,NULL,'intake-3-10',9,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-3-run',0.01397,0.101596126097664,NULL,NULL,NULL,NULL,6974.48948,335.41737564827,0.000689043267072,3.0,NULL,0,NULL,'intake-3-11',10,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-3-run',0.01524,0.105683190955776,NULL,NULL,NULL,NULL,6974.48948,342.014720220809,0.001071320696064,3.0,NULL,0,NULL,'intake-3-12',11,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-3-run',0.00381,0.035287510328064,NULL,NULL,NULL,NULL,6974.48948,47.2286095589666,0.000169901079552,3.0,NULL,0,NULL,'intake-3-3-again',12,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-3-run',0.00762,0.070598618028288,NULL,NULL,NULL,NULL,6974.48948,168.494085987533,0.000297326889216,3.0,NULL,0,NULL,'intake-3-6-again',13,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('intake-3-run',0.01143,0.0906139090944,NULL,NULL,NULL,NULL,6974.48948,281.486701761645,0.000415313750016,3.0,NULL,0,NULL,'intake-3-9-again',14,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-0-run',0.00127,0.009731556278784,NULL,NULL,NULL,NULL,6974.48948,NULL,3.7755795456e-05,3.0,NULL,0,NULL,'exhaust-0-1',0,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-0-run',0.00254,0.018863739304704,NULL,NULL,NULL,NULL,6974.48948,NULL,7.079211648e-05,3.0,NULL,0,NULL,'exhaust-0-2',1,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-0-run',0.00381,0.027759948609024,NULL,NULL,NULL,NULL,6974.48948,NULL,9.9108963072e-05,3.0,NULL,0,NULL,'exhaust-0-3',2,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-0-run',0.00508,0.035665068282624,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000155742656256,3.0,NULL,0,NULL,'exhaust-0-4',3,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-0-run',0.00635,0.042399758297088,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000122706335232,3.0,NULL,0,NULL,'exhaust-0-5',4,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-0-run',0.00762,0.04705316008704,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000193498451712,3.0,NULL,0,NULL,'exhaust-0-6',5,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-0-run',0.00889,0.050734350144,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000250132144896,3.0,NULL,0,NULL,'exhaust-0-7',6,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-0-run',0.01016,0.053835044845824,NULL,NULL,NULL,NULL,6971.9985909,NULL,0.000368119005696,3.0,NULL,0,NULL,'exhaust-0-8',7,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-0-run',0.01143,0.056463792104448,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000594653778432,3.0,NULL,0,NULL,'exhaust-0-9',8,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-0-run',0.0127,0.058290228709632,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000830627500032,3.0,NULL,0,NULL,'exhaust-0-10',9,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-0-run',0.00381,0.027486219091968,NULL,NULL,NULL,NULL,6976.9803691,NULL,9.438948864e-05,3.0,NULL,0,NULL,'exhaust-0-3-again',10,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-0-run',0.00762,0.047298572757504,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000193498451712,3.0,NULL,0,NULL,'exhaust-0-6-again',11,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-0-run',0.01143,0.056407158411264,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000604092727296,3.0,NULL,0,NULL,'exhaust-0-9-again',12,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-1-run',0.00127,0.009873140511744,NULL,NULL,NULL,NULL,6974.48948,NULL,4.2475269888e-05,3.0,NULL,0,NULL,'exhaust-1-1',0,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-1-run',0.00254,0.019038359858688,NULL,NULL,NULL,NULL,6974.48948,NULL,8.0231065344e-05,3.0,NULL,0,NULL,'exhaust-1-2',1,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-1-run',0.00381,0.027991202856192,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000108547911936,3.0,NULL,0,NULL,'exhaust-1-3',2,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-1-run',0.00508,0.036684474759936,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000160462130688,3.0,NULL,0,NULL,'exhaust-1-4',3,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-1-run',0.00635,0.043508834788608,NULL,NULL,NULL,NULL,6974.48948,NULL,0.00016518160512,3.0,NULL,0,NULL,'exhaust-1-5',4,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-1-run',0.00762,0.048332137658112,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000221815298304,3.0,NULL,0,NULL,'exhaust-1-6',5,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-1-run',0.00889,0.052442799888384,NULL,NULL,NULL,NULL,6974.48948,NULL,0.00028316846592,3.0,NULL,0,NULL,'exhaust-1-7',6,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-1-run',0.01016,0.056152306791936,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000382277428992,3.0,NULL,0,NULL,'exhaust-1-8',7,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-1-run',0.01143,0.058988710925568,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000552178508544,3.0,NULL,0,NULL,'exhaust-1-9',8,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-1-run',0.0127,0.061504190797824,NULL,NULL,NULL,NULL,6971.9985909,NULL,0.000877822244352,3.0,NULL,0,NULL,'exhaust-1-10',9,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-1-run',0.00381,0.02805727549824,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000122706335232,3.0,NULL,0,NULL,'exhaust-1-3-again',10,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-1-run',0.00762,0.048695537189376,NULL,NULL,NULL,NULL,6974.48948,NULL,0.00021237634944,3.0,NULL,0,NULL,'exhaust-1-6-again',11,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-1-run',0.01143,0.059219965172736,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000674884843776,3.0,NULL,0,NULL,'exhaust-1-9-again',12,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-2-run',0.00127,0.009906176832768,NULL,NULL,NULL,NULL,6974.48948,NULL,4.2475269888e-05,3.0,NULL,0,NULL,'exhaust-2-1',0,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-2-run',0.00254,0.019156346719488,NULL,NULL,NULL,NULL,6976.9803691,NULL,7.5511590912e-05,3.0,NULL,0,NULL,'exhaust-2-2',1,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-2-run',0.00381,0.02822245710336,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000103828437504,3.0,NULL,0,NULL,'exhaust-2-3',2,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-2-run',0.00508,0.03671751108096,NULL,NULL,NULL,NULL,6974.48948,NULL,0.00016518160512,3.0,NULL,0,NULL,'exhaust-2-4',3,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-2-run',0.00635,0.043886392743168,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000160462130688,3.0,NULL,0,NULL,'exhaust-2-5',4,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-2-run',0.00762,0.04912972883712,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000207656875008,3.0,NULL,0,NULL,'exhaust-2-6',5,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-2-run',0.00889,0.05304689261568,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000325643735808,3.0,NULL,0,NULL,'exhaust-2-7',6,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-2-run',0.01016,0.056190062587392,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000420033224448,3.0,NULL,0,NULL,'exhaust-2-8',7,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-2-run',0.01143,0.059833496848896,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000594653778432,3.0,NULL,0,NULL,'exhaust-2-9',8,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-2-run',0.0127,0.061626897133056,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000736238011392,3.0,NULL,0,NULL,'exhaust-2-10',9,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-2-run',0.00381,0.028170542884608,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000122706335232,3.0,NULL,0,NULL,'exhaust-2-3-again',10,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-2-run',0.00762,0.04901174197632,NULL,NULL,NULL,NULL,6974.48948,NULL,0.00021237634944,3.0,NULL,0,NULL,'exhaust-2-6-again',11,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('exhaust-2-run',0.01143,0.059437060996608,NULL,NULL,NULL,NULL,6974.48948,NULL,0.000556897982976,3.0,NULL,0,NULL,'exhaust-2-9-again',12,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-1',0.00127,0.011699577116928,NULL,NULL,NULL,NULL,6974.48948,-20.7345115136926,5.1914218752e-05,3.0,NULL,0,NULL,'b1-intake-0-1',0,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-1',0.00254,0.0228894509952,NULL,NULL,NULL,NULL,6974.48948,-19.4778744522567,8.9670014208e-05,3.0,NULL,0,NULL,'b1-intake-0-2',1,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-1',0.00381,0.03501850028544,NULL,NULL,NULL,NULL,6974.48948,63.6696111127531,0.000136864758528,3.0,NULL,0,NULL,'b1-intake-0-3',2,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-1',0.00508,0.04615645994496,NULL,NULL,NULL,NULL,6974.48948,121.370196183686,0.00018877897728,3.0,NULL,0,NULL,'b1-intake-0-4',3,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-1',0.00635,0.055302801394176,NULL,NULL,NULL,NULL,6974.48948,167.551608191456,0.000231254247168,3.0,NULL,0,NULL,'b1-intake-0-5',4,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-1',0.00762,0.06281620468992,NULL,NULL,NULL,NULL,6971.9985909,209.963109014918,0.00030676583808,3.0,NULL,0,NULL,'b1-intake-0-6',5,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-1',0.00889,0.06895152145152,NULL,NULL,NULL,NULL,6974.48948,254.887883961252,0.000264290568192,3.0,NULL,0,NULL,'b1-intake-0-7',6,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-1',0.01016,0.072835648909056,NULL,NULL,NULL,NULL,6974.48948,280.858383230927,0.000429472173312,3.0,NULL,0,NULL,'b1-intake-0-8',7,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-1',0.01143,0.076011855201792,NULL,NULL,NULL,NULL,6974.48948,296.252187233517,0.00051914218752,3.0,NULL,0,NULL,'b1-intake-0-9',8,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-1',0.0127,0.079645850514432,NULL,NULL,NULL,NULL,6976.9803691,291.435078498013,0.000807030127872,3.0,NULL,0,NULL,'b1-intake-0-10',9,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-1',0.01397,0.082737106267392,NULL,NULL,NULL,NULL,6974.48948,275.098796699346,0.001066601221632,3.0,NULL,0,NULL,'b1-intake-0-11',10,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-1',0.01524,0.08485615028736,NULL,NULL,NULL,NULL,6974.48948,284.523574660116,0.00127425809664,3.0,NULL,0,NULL,'b1-intake-0-12',11,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-1',0.00381,0.035027939234304,NULL,NULL,NULL,NULL,6974.48948,64.0884901332318,0.000127425809664,3.0,NULL,0,NULL,'b1-intake-0-3-again',12,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-1',0.00762,0.062617986763776,NULL,NULL,NULL,NULL,6974.48948,205.250720034533,0.000278448991488,3.0,NULL,0,NULL,'b1-intake-0-6-again',13,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-1',0.01143,0.075917465713152,NULL,NULL,NULL,NULL,6974.48948,289.026524130261,0.000726799062528,3.0,NULL,0,NULL,'b1-intake-0-9-again',14,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-2',0.00127,0.01184588082432,NULL,NULL,NULL,NULL,6971.9985909,-20.8392312688123,5.1914218752e-05,3.0,NULL,0,NULL,'b2-intake-1-1',0,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-2',0.00254,0.023285886847488,NULL,NULL,NULL,NULL,6974.48948,-19.1637151868977,8.4950539776e-05,3.0,NULL,0,NULL,'b2-intake-1-2',1,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-2',0.00381,0.03577361619456,NULL,NULL,NULL,NULL,6974.48948,63.4601716025138,0.000155742656256,3.0,NULL,0,NULL,'b2-intake-1-3',2,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-2',0.00508,0.047392962246144,NULL,NULL,NULL,NULL,6974.48948,122.207954224643,0.000202937400576,3.0,NULL,0,NULL,'b2-intake-1-4',3,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-2',0.00635,0.057280261181184,NULL,NULL,NULL,NULL,6974.48948,164.933614313464,0.0002359737216,3.0,NULL,0,NULL,'b2-intake-1-5',4,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-2',0.00762,0.064968285030912,NULL,NULL,NULL,NULL,6974.48948,208.706471953482,0.000264290568192,3.0,NULL,0,NULL,'b2-intake-1-6',5,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-2',0.00889,0.071518915542528,NULL,NULL,NULL,NULL,6974.48948,242.949831877611,0.000302046363648,3.0,NULL,0,NULL,'b2-intake-1-7',6,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-2',0.01016,0.076800007431936,NULL,NULL,NULL,NULL,6974.48948,280.544223965569,0.000467227968768,3.0,NULL,0,NULL,'b2-intake-1-8',7,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-2',0.01143,0.079542022076928,NULL,NULL,NULL,NULL,6971.9985909,296.461626743757,0.000670165369344,3.0,NULL,0,NULL,'b2-intake-1-9',8,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-2',0.0127,0.083879219079936,NULL,NULL,NULL,NULL,6974.48948,300.650416948543,0.000811749602304,3.0,NULL,0,NULL,'b2-intake-1-10',9,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-2',0.01397,0.0869563164096,NULL,NULL,NULL,NULL,6971.9985909,284.837733925475,0.001241221775616,3.0,NULL,0,NULL,'b2-intake-1-11',10,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-2',0.01524,0.089948463199488,NULL,NULL,NULL,NULL,6974.48948,294.786110661842,0.00125066072448,3.0,NULL,0,NULL,'b2-intake-1-12',11,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-2',0.00381,0.035712263026944,NULL,NULL,NULL,NULL,6974.48948,64.1932098883514,0.000174620553984,3.0,NULL,0,NULL,'b2-intake-1-3-again',12,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-2',0.00762,0.065119308212736,NULL,NULL,NULL,NULL,6974.48948,211.533905341713,0.000245412670464,3.0,NULL,0,NULL,'b2-intake-1-6-again',13,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-2',0.01143,0.080226345869568,NULL,NULL,NULL,NULL,6974.48948,295.833308213039,0.000618251150592,3.0,NULL,0,NULL,'b2-intake-1-9-again',14,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-3',0.00127,0.01241221775616,NULL,NULL,NULL,NULL,6974.48948,-20.943951023932,5.6633693184e-05,3.0,NULL,0,NULL,'b3-intake-1-1',0,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-3',0.00254,0.024427999660032,NULL,NULL,NULL,NULL,6974.48948,-19.3731546971371,8.9670014208e-05,3.0,NULL,0,NULL,'b3-intake-1-2',1,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-3',0.00381,0.037345201180416,NULL,NULL,NULL,NULL,6974.48948,62.6224135615565,0.000127425809664,3.0,NULL,0,NULL,'b3-intake-1-3',2,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-3',0.00508,0.049445933624064,NULL,NULL,NULL,NULL,6974.48948,122.417393734882,0.000198217926144,3.0,NULL,0,NULL,'b3-intake-1-4',3,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-3',0.00635,0.060017556351744,NULL,NULL,NULL,NULL,6974.48948,164.305295782746,0.000240693196032,3.0,NULL,0,NULL,'b3-intake-1-5',4,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-3',0.00762,0.068356867673088,NULL,NULL,NULL,NULL,6974.48948,205.146000279413,0.00028316846592,3.0,NULL,0,NULL,'b3-intake-1-6',5,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-3',0.00889,0.075190666650624,NULL,NULL,NULL,NULL,6974.48948,245.881985020961,0.00037755795456,3.0,NULL,0,NULL,'b3-intake-1-7',6,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-3',0.01016,0.080056444790016,NULL,NULL,NULL,NULL,6974.48948,276.460153515902,0.000443630596608,3.0,NULL,0,NULL,'b3-intake-1-8',7,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-3',0.01143,0.083883938554368,NULL,NULL,NULL,NULL,6974.48948,296.671066253996,0.00075511590912,3.0,NULL,0,NULL,'b3-intake-1-9',8,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-3',0.0127,0.088164501864192,NULL,NULL,NULL,NULL,6974.48948,297.822983560312,0.000882541718784,3.0,NULL,0,NULL,'b3-intake-1-10',9,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-3',0.01397,0.0912038433984,NULL,NULL,NULL,NULL,6974.48948,285.780211721551,0.00115627123584,3.0,NULL,0,NULL,'b3-intake-1-11',10,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-3',0.01524,0.093955296992256,NULL,NULL,NULL,NULL,6974.48948,283.685816619158,0.001543268139264,3.0,NULL,0,NULL,'b3-intake-1-12',11,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-3',0.00381,0.037491504887808,NULL,NULL,NULL,NULL,6974.48948,64.5073691537104,0.000146303707392,3.0,NULL,0,NULL,'b3-intake-1-3-again',12,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-3',0.00762,0.068210563965696,NULL,NULL,NULL,NULL,6974.48948,206.612076851089,0.00025957109376,3.0,NULL,0,NULL,'b3-intake-1-6-again',13,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-3',0.01143,0.083459185855488,NULL,NULL,NULL,NULL,6974.48948,298.45130209103,0.0007079211648,3.0,NULL,0,NULL,'b3-intake-1-9-again',14,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-4',0.00127,0.011501359190784,NULL,NULL,NULL,NULL,6974.48948,-24.7138622082397,4.2475269888e-05,3.0,NULL,0,NULL,'b4-intake-2-1',0,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-4',0.00254,0.022672355171328,NULL,NULL,NULL,NULL,6974.48948,-29.2168116783851,9.438948864e-05,3.0,NULL,0,NULL,'b4-intake-2-2',1,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-4',0.00381,0.035221437686016,NULL,NULL,NULL,NULL,6974.48948,47.0191700487272,0.000136864758528,3.0,NULL,0,NULL,'b4-intake-2-3',2,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-4',0.00508,0.047562863325696,NULL,NULL,NULL,NULL,6974.48948,97.5988117715229,0.000198217926144,3.0,NULL,0,NULL,'b4-intake-2-4',3,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-4',0.00635,0.059068941990912,NULL,NULL,NULL,NULL,6974.48948,132.889369246848,0.000254851619328,3.0,NULL,0,NULL,'b4-intake-2-5',4,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-4',0.00762,0.070423997474304,NULL,NULL,NULL,NULL,6974.48948,165.352493333943,0.000269010042624,3.0,NULL,0,NULL,'b4-intake-2-6',5,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-4',0.00889,0.078975685145088,NULL,NULL,NULL,NULL,6976.9803691,201.166649584866,0.000358680056832,3.0,NULL,0,NULL,'b4-intake-2-7',6,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-4',0.01016,0.08497413714816,NULL,NULL,NULL,NULL,6974.48948,241.693194816175,0.000297326889216,3.0,NULL,0,NULL,'b4-intake-2-8',7,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-4',0.01143,0.090335460102912,NULL,NULL,NULL,NULL,6976.9803691,285.989651231791,0.000358680056832,3.0,NULL,0,NULL,'b4-intake-2-9',8,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-4',0.0127,0.096272558938368,NULL,NULL,NULL,NULL,6971.9985909,312.483749277065,0.00054273955968,3.0,NULL,0,NULL,'b4-intake-2-10',9,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-4',0.01397,0.100699425955584,NULL,NULL,NULL,NULL,6974.48948,342.014720220809,0.000788152230144,3.0,NULL,0,NULL,'b4-intake-2-11',10,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-4',0.01524,0.104555236566528,NULL,NULL,NULL,NULL,6974.48948,346.203510425595,0.001047723323904,3.0,NULL,0,NULL,'b4-intake-2-12',11,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-4',0.00381,0.035141206620672,NULL,NULL,NULL,NULL,6974.48948,46.9144502936076,0.000169901079552,3.0,NULL,0,NULL,'b4-intake-2-3-again',12,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-4',0.00762,0.070239937971456,NULL,NULL,NULL,NULL,6974.48948,167.132729170977,0.000311485312512,3.0,NULL,0,NULL,'b4-intake-2-6-again',13,'{}',NULL,NULL,0,NULL);
INSERT INTO "reading" VALUES('bridge-4',0.01143,0.090505361182464,NULL,NULL,NULL,NULL,6974.48948,279.497026414372,0.000386996903424,3.0,NULL,0,NULL,'b4-intake-2-9-again',14,'{}',NULL,NULL,0,NULL);
CREATE TABLE revision (
	owner VARCHAR NOT NULL, 
	number INTEGER NOT NULL, 
	CONSTRAINT pk_revision PRIMARY KEY (owner)
);
INSERT INTO "revision" VALUES('demo-corvane-22h',1);
INSERT INTO "revision" VALUES('benches',1);
CREATE TABLE rung_note (
	flow_run_id VARCHAR NOT NULL, 
	lift DOUBLE NOT NULL, 
	kind VARCHAR NOT NULL, 
	text VARCHAR NOT NULL, 
	time VARCHAR, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	CONSTRAINT pk_rung_note PRIMARY KEY (id), 
	CONSTRAINT fk_rung_note_flow_run_id_flow_run FOREIGN KEY(flow_run_id) REFERENCES flow_run (id) ON DELETE CASCADE
);
CREATE TABLE scatter_study (
	bench_id VARCHAR NOT NULL, 
	date VARCHAR, 
	head VARCHAR NOT NULL, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	CONSTRAINT pk_scatter_study PRIMARY KEY (id), 
	CONSTRAINT fk_scatter_study_bench_id_bench FOREIGN KEY(bench_id) REFERENCES bench (id) ON DELETE CASCADE
);
INSERT INTO "scatter_study" VALUES('bench-back-room','2026-05-03','spare head','study',0,'{}');
CREATE TABLE seat (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	recipe VARCHAR NOT NULL, 
	version INTEGER NOT NULL, 
	angles JSON NOT NULL, 
	widths JSON NOT NULL, 
	radius DOUBLE, 
	contact DOUBLE, 
	contact_angle DOUBLE, 
	margin DOUBLE, 
	throat DOUBLE, 
	sunk DOUBLE, 
	"insert" BOOLEAN, 
	note VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	job_id VARCHAR NOT NULL, 
	CONSTRAINT pk_seat PRIMARY KEY (id), 
	CONSTRAINT fk_seat_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
INSERT INTO "seat" VALUES('seat-1','{}','street',1,'[0.523598775598299, 0.785398163397448, 1.0471975511966]','[0.001016, 0.0012192, 0.001524]',NULL,0.0012192,0.785398163397448,0.000254,NULL,NULL,NULL,'',0,'demo-corvane-22h');
CREATE TABLE setup (
	job_id VARCHAR NOT NULL, 
	direction VARCHAR NOT NULL, 
	test_pressure DOUBLE, 
	bench VARCHAR, 
	bore DOUBLE, 
	centred BOOLEAN, 
	entry VARCHAR, 
	pipe VARCHAR, 
	valve VARCHAR, 
	plug VARCHAR, 
	clean BOOLEAN, 
	temperature DOUBLE, 
	pressure DOUBLE, 
	humidity DOUBLE, 
	leak DOUBLE, 
	leak_pressure DOUBLE, 
	seat_leak DOUBLE, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, pipe_diameter DOUBLE, pipe_length DOUBLE, valves_open VARCHAR, springs VARCHAR, plenum_temperature DOUBLE, air_read_at VARCHAR, element VARCHAR, scale_density DOUBLE, orifice_diameter DOUBLE, orifice_pipe DOUBLE, orifice_coefficient DOUBLE, swirl_meter VARCHAR, element_place VARCHAR, leak_taken_off BOOLEAN DEFAULT '0' NOT NULL, swirl_axis VARCHAR, 
	CONSTRAINT pk_setup PRIMARY KEY (id), 
	CONSTRAINT fk_setup_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
INSERT INTO "setup" VALUES('demo-corvane-22h','intake',6974.48948,'back-room',0.089,1,'radius',NULL,'job','in',1,294.15,100600.0,0.45,0.00018877897728,6974.48948,NULL,'setup-intake',0,'{}',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL);
INSERT INTO "setup" VALUES('demo-corvane-22h','exhaust',6974.48948,'back-room',0.089,1,'bare','none','job','in',1,294.15,100600.0,0.45,0.00018877897728,6974.48948,NULL,'setup-exhaust',1,'{}',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL);
INSERT INTO "setup" VALUES('demo-corvane-22h','intake',6974.48948,'borrowed',0.089,1,'bare',NULL,'job','in',1,294.15,100600.0,0.45,0.00018877897728,6974.48948,NULL,'setup-bare',2,'{}',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL);
INSERT INTO "setup" VALUES('demo-corvane-22h','intake',6974.48948,'borrowed',0.089,1,'radius',NULL,'job','in',1,294.15,100600.0,0.45,0.00018877897728,6974.48948,NULL,'setup-radius',3,'{}',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL);
CREATE TABLE stage_mark (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	stage VARCHAR NOT NULL, 
	port_id VARCHAR NOT NULL, 
	closed_by VARCHAR NOT NULL, 
	date VARCHAR, 
	position INTEGER NOT NULL, 
	job_id VARCHAR NOT NULL, 
	CONSTRAINT pk_stage_mark PRIMARY KEY (id), 
	CONSTRAINT fk_stage_mark_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE TABLE station (
	cut_id VARCHAR NOT NULL, 
	along DOUBLE NOT NULL, 
	name VARCHAR NOT NULL, 
	width DOUBLE, 
	height DOUBLE, 
	corner_radius DOUBLE, 
	area DOUBLE, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	CONSTRAINT pk_station PRIMARY KEY (id), 
	CONSTRAINT fk_station_cut_id_cut FOREIGN KEY(cut_id) REFERENCES cut (id) ON DELETE CASCADE
);
INSERT INTO "station" VALUES('intake-0',0.02,'before the pinch',0.028,0.0422,0.008,NULL,'station-1',0,'{}');
INSERT INTO "station" VALUES('intake-0',0.069,'guide',0.0325,0.0385,0.011,NULL,'station-2',1,'{}');
INSERT INTO "station" VALUES('intake-0',0.084,'short side',0.036,0.0335,0.014,NULL,'station-3',2,'{}');
INSERT INTO "station" VALUES('intake-2',0.02,'before the pinch',0.028,0.0422,0.008,NULL,'station-1-again',0,'{}');
INSERT INTO "station" VALUES('intake-2',0.069,'guide',0.0325,0.0385,0.011,NULL,'station-2-again',1,'{}');
INSERT INTO "station" VALUES('intake-2',0.084,'short side',0.0386,0.0345,0.015,NULL,'station-4',2,'{}');
CREATE TABLE step_record (
	flow_run_id VARCHAR NOT NULL, 
	kind VARCHAR NOT NULL, 
	skipped VARCHAR, 
	flow DOUBLE, 
	pressure DOUBLE, 
	drift DOUBLE, 
	time VARCHAR, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	CONSTRAINT pk_step_record PRIMARY KEY (id), 
	CONSTRAINT fk_step_record_flow_run_id_flow_run FOREIGN KEY(flow_run_id) REFERENCES flow_run (id) ON DELETE CASCADE
);
CREATE TABLE study_reading (
	scatter_study_id VARCHAR NOT NULL, 
	mount INTEGER NOT NULL, 
	lift DOUBLE NOT NULL, 
	flow DOUBLE NOT NULL, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	CONSTRAINT pk_study_reading PRIMARY KEY (id), 
	CONSTRAINT fk_study_reading_scatter_study_id_scatter_study FOREIGN KEY(scatter_study_id) REFERENCES scatter_study (id) ON DELETE CASCADE
);
INSERT INTO "study_reading" VALUES('study',1,0.00508,5.18670240076799862749e-02,'study-1-0.2-0',0,'{}');
INSERT INTO "study_reading" VALUES('study',1,0.00508,5.19614134963199761352e-02,'study-1-0.2-1',1,'{}');
INSERT INTO "study_reading" VALUES('study',1,0.01016,8.33459184691199700401e-02,'study-1-0.4-0',2,'{}');
INSERT INTO "study_reading" VALUES('study',1,0.01016,8.30627500031999727037e-02,'study-1-0.4-1',3,'{}');
INSERT INTO "study_reading" VALUES('study',1,0.0127,9.36343727308799611552e-02,'study-1-0.5-0',4,'{}');
INSERT INTO "study_reading" VALUES('study',1,0.0127,9.31624252876799702205e-02,'study-1-0.5-1',5,'{}');
INSERT INTO "study_reading" VALUES('study',2,0.00508,5.15366607974399801306e-02,'study-2-0.2-0',6,'{}');
INSERT INTO "study_reading" VALUES('study',2,0.00508,5.16310502860799838686e-02,'study-2-0.2-1',7,'{}');
INSERT INTO "study_reading" VALUES('study',2,0.01016,8.27795815372799753673e-02,'study-2-0.4-0',8,'{}');
INSERT INTO "study_reading" VALUES('study',2,0.01016,8.28739710259199652275e-02,'study-2-0.4-1',9,'{}');
INSERT INTO "study_reading" VALUES('study',2,0.0127,9.28792568217599728841e-02,'study-2-0.5-0',10,'{}');
INSERT INTO "study_reading" VALUES('study',2,0.0127,9.33983990092799726268e-02,'study-2-0.5-1',11,'{}');
INSERT INTO "study_reading" VALUES('study',3,0.00508,5.1819829263359977467e-02,'study-3-0.2-0',12,'{}');
INSERT INTO "study_reading" VALUES('study',3,0.00508,5.1819829263359977467e-02,'study-3-0.2-1',13,'{}');
INSERT INTO "study_reading" VALUES('study',3,0.01016,8.34403079577599737781e-02,'study-3-0.4-0',14,'{}');
INSERT INTO "study_reading" VALUES('study',3,0.01016,8.30627500031999727037e-02,'study-3-0.4-1',15,'{}');
INSERT INTO "study_reading" VALUES('study',3,0.0127,9.32096200319999651506e-02,'study-3-0.5-0',16,'{}');
INSERT INTO "study_reading" VALUES('study',3,0.0127,9.32096200319999651506e-02,'study-3-0.5-1',17,'{}');
INSERT INTO "study_reading" VALUES('study',4,0.00508,5.21029977292799817423e-02,'study-4-0.2-0',18,'{}');
INSERT INTO "study_reading" VALUES('study',4,0.00508,5.23389714508799841485e-02,'study-4-0.2-1',19,'{}');
INSERT INTO "study_reading" VALUES('study',4,0.01016,8.38178659123199609748e-02,'study-4-0.4-0',20,'{}');
INSERT INTO "study_reading" VALUES('study',4,0.01016,8.30155552588799777735e-02,'study-4-0.4-1',21,'{}');
INSERT INTO "study_reading" VALUES('study',4,0.0127,9.42950991513599734439e-02,'study-4-0.5-0',22,'{}');
INSERT INTO "study_reading" VALUES('study',4,0.0127,9.39175411967999584916e-02,'study-4-0.5-1',23,'{}');
INSERT INTO "study_reading" VALUES('study',5,0.00508,5.16782450303999787988e-02,'study-5-0.2-0',24,'{}');
INSERT INTO "study_reading" VALUES('study',5,0.00508,5.1819829263359977467e-02,'study-5-0.2-1',25,'{}');
INSERT INTO "study_reading" VALUES('study',5,0.01016,8.28739710259199652275e-02,'study-5-0.4-0',26,'{}');
INSERT INTO "study_reading" VALUES('study',5,0.01016,8.28739710259199652275e-02,'study-5-0.4-1',27,'{}');
INSERT INTO "study_reading" VALUES('study',5,0.0127,9.29736463103999627444e-02,'study-5-0.5-0',28,'{}');
INSERT INTO "study_reading" VALUES('study',5,0.0127,9.34455937535999675569e-02,'study-5-0.5-1',29,'{}');
CREATE TABLE swirl_wish (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	kind VARCHAR NOT NULL, 
	low DOUBLE NOT NULL, 
	high DOUBLE NOT NULL, 
	swirl DOUBLE NOT NULL, 
	position INTEGER NOT NULL, 
	job_id VARCHAR NOT NULL, 
	CONSTRAINT pk_swirl_wish PRIMARY KEY (id), 
	CONSTRAINT fk_swirl_wish_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE TABLE target (
	job_id VARCHAR NOT NULL, 
	kind VARCHAR NOT NULL, 
	lift DOUBLE NOT NULL, 
	flow DOUBLE NOT NULL, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, test_pressure DOUBLE, 
	CONSTRAINT pk_target PRIMARY KEY (id), 
	CONSTRAINT fk_target_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
INSERT INTO "target" VALUES('demo-corvane-22h','intake',0.01143,0.09438948864,'target-1',0,'{}',NULL);
CREATE TABLE transfer (
	bench_id VARCHAR NOT NULL, 
	other VARCHAR NOT NULL, 
	date VARCHAR, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	CONSTRAINT pk_transfer PRIMARY KEY (id), 
	CONSTRAINT fk_transfer_bench_id_bench FOREIGN KEY(bench_id) REFERENCES bench (id) ON DELETE CASCADE
);
INSERT INTO "transfer" VALUES('bench-back-room','the barn','2026-05-02','transfer',0,'{}');
CREATE TABLE transfer_part (
	transfer_id VARCHAR NOT NULL, 
	name VARCHAR NOT NULL, 
	here DOUBLE NOT NULL, 
	there DOUBLE NOT NULL, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, lift DOUBLE, 
	CONSTRAINT pk_transfer_part PRIMARY KEY (id), 
	CONSTRAINT fk_transfer_part_transfer_id_transfer FOREIGN KEY(transfer_id) REFERENCES transfer (id) ON DELETE CASCADE
);
INSERT INTO "transfer_part" VALUES('transfer','plate',7.16888166220799732952e-02,7.40013590937599746721e-02,'part-0',0,'{}',NULL);
INSERT INTO "transfer_part" VALUES('transfer','spare head, 0.300',6.99426110822399665911e-02,7.20663745766399743697e-02,'part-1',1,'{}',NULL);
INSERT INTO "transfer_part" VALUES('transfer','spare head, 0.500',9.58053309695999638639e-02,9.91561578163199647262e-02,'part-2',2,'{}',NULL);
CREATE TABLE "traverse" (
	cut_id VARCHAR NOT NULL, 
	station VARCHAR NOT NULL, 
	setup_id VARCHAR, 
	lift DOUBLE, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	kind VARCHAR DEFAULT 'pitot' NOT NULL, 
	layout VARCHAR DEFAULT '' NOT NULL, 
	mount_id VARCHAR, 
	probe VARCHAR DEFAULT '' NOT NULL, 
	coefficient DOUBLE, 
	base_flow DOUBLE, 
	date VARCHAR, probe_diameter DOUBLE, 
	CONSTRAINT pk_traverse PRIMARY KEY (id), 
	CONSTRAINT fk_traverse_setup_id_setup FOREIGN KEY(setup_id) REFERENCES setup (id), 
	CONSTRAINT fk_traverse_cut_id_cut FOREIGN KEY(cut_id) REFERENCES cut (id) ON DELETE CASCADE, 
	CONSTRAINT fk_traverse_mount_id_mount FOREIGN KEY(mount_id) REFERENCES mount (id)
);
INSERT INTO "traverse" VALUES('intake-1','opening','setup-intake',0.0127,'intake-1-opening-pitot',0,'{}','pitot','nine points',NULL,'straight',1.0,NULL,'2026-05-05',NULL);
INSERT INTO "traverse" VALUES('intake-1','pinch','setup-intake',0.0127,'intake-1-pinch-pitot',1,'{}','pitot','nine points',NULL,'straight',1.0,NULL,'2026-05-05',NULL);
INSERT INTO "traverse" VALUES('intake-1','short side','setup-intake',0.0127,'intake-1-short side-pitot',2,'{}','pitot','nine points',NULL,'curved',1.0,NULL,'2026-05-05',NULL);
INSERT INTO "traverse" VALUES('intake-1','seat','setup-intake',0.0127,'intake-1-seat-pitot',3,'{}','pitot','seat clock',NULL,'curved',1.0,NULL,'2026-05-05',NULL);
INSERT INTO "traverse" VALUES('intake-1','pinch','setup-intake',0.0127,'intake-1-pinch-ball',4,'{}','ball','nine points',NULL,'ball',NULL,0.08782941917952,'2026-05-05',NULL);
INSERT INTO "traverse" VALUES('intake-1','short side','setup-intake',0.0127,'intake-1-short side-ball',5,'{}','ball','nine points',NULL,'ball',NULL,0.08782941917952,'2026-05-05',NULL);
INSERT INTO "traverse" VALUES('intake-2','opening','setup-intake',0.0127,'intake-2-opening-pitot',0,'{}','pitot','nine points',NULL,'straight',1.0,NULL,'2026-05-06',NULL);
INSERT INTO "traverse" VALUES('intake-2','pinch','setup-intake',0.0127,'intake-2-pinch-pitot',1,'{}','pitot','nine points',NULL,'straight',1.0,NULL,'2026-05-06',NULL);
INSERT INTO "traverse" VALUES('intake-2','short side','setup-intake',0.0127,'intake-2-short side-pitot',2,'{}','pitot','nine points',NULL,'curved',1.0,NULL,'2026-05-06',NULL);
INSERT INTO "traverse" VALUES('intake-2','seat','setup-intake',0.0127,'intake-2-seat-pitot',3,'{}','pitot','seat clock',NULL,'curved',1.0,NULL,'2026-05-06',NULL);
INSERT INTO "traverse" VALUES('intake-2','pinch','setup-intake',0.0127,'intake-2-pinch-ball',4,'{}','ball','nine points',NULL,'ball',NULL,0.09613569417984,'2026-05-06',NULL);
INSERT INTO "traverse" VALUES('intake-2','short side','setup-intake',0.0127,'intake-2-short side-ball',5,'{}','ball','nine points',NULL,'ball',NULL,0.09613569417984,'2026-05-06',NULL);
CREATE TABLE trial (
	cut_id VARCHAR NOT NULL, 
	kind VARCHAR NOT NULL, 
	name VARCHAR NOT NULL, 
	note VARCHAR NOT NULL, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, place VARCHAR DEFAULT '' NOT NULL, area_taken DOUBLE, area_uncertainty DOUBLE, date VARCHAR, valve_ids JSON DEFAULT '[]' NOT NULL, piece_id VARCHAR, 
	CONSTRAINT pk_trial PRIMARY KEY (id), 
	CONSTRAINT fk_trial_cut_id_cut FOREIGN KEY(cut_id) REFERENCES cut (id) ON DELETE CASCADE
);
CREATE TABLE tube (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	place VARCHAR NOT NULL, 
	side VARCHAR, 
	size DOUBLE, 
	adhesive VARCHAR NOT NULL, 
	tested BOOLEAN NOT NULL, 
	date VARCHAR, 
	note VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	cut_id VARCHAR NOT NULL, 
	CONSTRAINT pk_tube PRIMARY KEY (id), 
	CONSTRAINT fk_tube_cut_id_cut FOREIGN KEY(cut_id) REFERENCES cut (id) ON DELETE CASCADE
);
CREATE TABLE valve (
	job_id VARCHAR NOT NULL, 
	name VARCHAR NOT NULL, 
	head_diameter DOUBLE, 
	stem_diameter DOUBLE, 
	seat_width DOUBLE, 
	seat_angle DOUBLE, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, seat_margin DOUBLE, seat_insert BOOLEAN, back_cut_angle DOUBLE, back_shape VARCHAR DEFAULT '' NOT NULL, weight DOUBLE, back_cut_width DOUBLE, 
	CONSTRAINT pk_valve PRIMARY KEY (id), 
	CONSTRAINT fk_valve_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
INSERT INTO "valve" VALUES('demo-corvane-22h','intake valve',0.046,0.007,0.0016,0.785398163397448,'valve-intake',0,'{}',NULL,NULL,NULL,'',NULL,NULL);
INSERT INTO "valve" VALUES('demo-corvane-22h','exhaust valve',0.0375,0.007,0.0019,0.785398163397448,'valve-exhaust',1,'{}',NULL,NULL,NULL,'',NULL,NULL);
CREATE TABLE wait (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	stage VARCHAR NOT NULL, 
	port_ids JSON NOT NULL, 
	who VARCHAR NOT NULL, 
	since VARCHAR, 
	promised VARCHAR, 
	ended VARCHAR, 
	price DOUBLE, 
	note VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	job_id VARCHAR NOT NULL, 
	CONSTRAINT pk_wait PRIMARY KEY (id), 
	CONSTRAINT fk_wait_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE TABLE wall_limit (
	job_id VARCHAR NOT NULL, 
	place VARCHAR DEFAULT '' NOT NULL, 
	thickness DOUBLE NOT NULL, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	CONSTRAINT pk_wall_limit PRIMARY KEY (id), 
	CONSTRAINT fk_wall_limit_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
INSERT INTO "wall_limit" VALUES('demo-corvane-22h','short side',0.002794,'limit-1',0,'{}');
CREATE TABLE wall_reading (
	cut_id VARCHAR NOT NULL, 
	place VARCHAR NOT NULL, 
	thickness DOUBLE NOT NULL, 
	date VARCHAR, 
	note VARCHAR NOT NULL, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, band VARCHAR, along DOUBLE, across DOUBLE DEFAULT '0' NOT NULL, behind VARCHAR DEFAULT '' NOT NULL, probe VARCHAR DEFAULT '' NOT NULL, sound_speed DOUBLE, uncertainty DOUBLE, struck VARCHAR, behind_port_id VARCHAR, 
	CONSTRAINT pk_wall_reading PRIMARY KEY (id), 
	CONSTRAINT fk_wall_reading_cut_id_cut FOREIGN KEY(cut_id) REFERENCES cut (id) ON DELETE CASCADE
);
INSERT INTO "wall_reading" VALUES('intake-0','pinch',0.0034036,'2026-05-03','','wall-1',0,'{}','left',0.034,0.0,'a pushrod hole','5 MHz, 6 mm',6320.0,NULL,NULL,NULL);
INSERT INTO "wall_reading" VALUES('intake-0','pinch',0.0035306,'2026-05-03','','wall-2',1,'{}','left',0.046,0.1,'a pushrod hole','5 MHz, 6 mm',6320.0,NULL,NULL,NULL);
INSERT INTO "wall_reading" VALUES('intake-0','roof',0.005334,'2026-05-03','','wall-3',2,'{}','roof',0.04,0.0,'','5 MHz, 6 mm',6320.0,NULL,NULL,NULL);
INSERT INTO "wall_reading" VALUES('intake-0','short side',0.0042672,'2026-05-03','','wall-4',3,'{}','floor',0.082,-0.2,'water','5 MHz, 6 mm',6320.0,NULL,NULL,NULL);
INSERT INTO "wall_reading" VALUES('intake-0','bowl',0.0040132,'2026-05-03','','wall-5',4,'{}','right',0.093,0.2,'water','5 MHz, 6 mm',6320.0,NULL,NULL,NULL);
INSERT INTO "wall_reading" VALUES('intake-2','short side',0.0030734,'2026-05-06','','wall-6',0,'{}','floor',0.08,0.2,'water','5 MHz, 6 mm',6320.0,NULL,NULL,NULL);
INSERT INTO "wall_reading" VALUES('exhaust-0','roof',0.004572,'2026-05-08','','wall-7',0,'{}','roof',0.03,0.0,'water','5 MHz, 6 mm',6320.0,NULL,NULL,NULL);
INSERT INTO "wall_reading" VALUES('intake-4-0','bowl',0.004826,'2026-05-12','','wall-4-1',0,'{}','left',0.094,0.0,'water','',NULL,NULL,NULL,NULL);
INSERT INTO "wall_reading" VALUES('intake-4-0','bowl',0.0029972,'2026-05-12','','wall-4-2',1,'{}','right',0.094,0.0,'water','',NULL,NULL,NULL,NULL);
CREATE TABLE work (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	place VARCHAR NOT NULL, 
	side VARCHAR, 
	from_hour DOUBLE, 
	to_hour DOUBLE, 
	depth DOUBLE, 
	reach DOUBLE, 
	until VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	operation_id VARCHAR NOT NULL, 
	CONSTRAINT pk_work PRIMARY KEY (id), 
	CONSTRAINT fk_work_operation_id_operation FOREIGN KEY(operation_id) REFERENCES operation (id) ON DELETE CASCADE
);
INSERT INTO "work" VALUES('intake-1-work-0-1','{}','bowl',NULL,NULL,NULL,0.0006,NULL,'',0,'intake-1-work-0');
INSERT INTO "work" VALUES('intake-1-work-1-1','{}','guide',NULL,NULL,NULL,0.0008,NULL,'',0,'intake-1-work-1');
INSERT INTO "work" VALUES('intake-2-work-0-1','{}','throat',NULL,NULL,NULL,0.0011,NULL,'',0,'intake-2-work-0');
INSERT INTO "work" VALUES('intake-2-work-1-1','{}','short side',NULL,NULL,NULL,0.001,NULL,'',0,'intake-2-work-1');
INSERT INTO "work" VALUES('intake-3-work-0-1','{}','guide',NULL,NULL,NULL,0.0015,NULL,'',0,'intake-3-work-0');
INSERT INTO "work" VALUES('exhaust-1-work-0-1','{}','bowl',NULL,NULL,NULL,0.0007,NULL,'',0,'exhaust-1-work-0');
INSERT INTO "work" VALUES('exhaust-2-work-0-1','{}','all over',NULL,NULL,NULL,NULL,NULL,'',0,'exhaust-2-work-0');
INSERT INTO "work" VALUES('work-4-1','{}','bowl','left',NULL,NULL,0.000762,NULL,'',0,'op-4-1');
INSERT INTO "work" VALUES('work-4-2','{}','seat',NULL,NULL,NULL,NULL,NULL,'',0,'op-4-2');
CREATE INDEX ix_mount_job_id ON mount (job_id);
CREATE INDEX ix_setup_job_id ON setup (job_id);
CREATE INDEX ix_valve_job_id ON valve (job_id);
CREATE INDEX ix_observation_cut_id ON observation (cut_id);
CREATE INDEX ix_trial_cut_id ON trial (cut_id);
CREATE INDEX ix_wall_reading_cut_id ON wall_reading (cut_id);
CREATE INDEX ix_flow_run_cut_id ON flow_run (cut_id);
CREATE INDEX ix_flow_run_trial_id ON flow_run (trial_id);
CREATE INDEX ix_plate_check_bench_id ON plate_check (bench_id);
CREATE INDEX ix_scatter_study_bench_id ON scatter_study (bench_id);
CREATE INDEX ix_transfer_bench_id ON transfer (bench_id);
CREATE INDEX ix_study_reading_scatter_study_id ON study_reading (scatter_study_id);
CREATE INDEX ix_transfer_part_transfer_id ON transfer_part (transfer_id);
CREATE INDEX ix_rung_note_flow_run_id ON rung_note (flow_run_id);
CREATE INDEX ix_step_record_flow_run_id ON step_record (flow_run_id);
CREATE INDEX ix_reading_flow_run_id ON reading (flow_run_id);
CREATE INDEX ix_cam_point_job_id ON cam_point (job_id);
CREATE INDEX ix_check_mark_job_id ON check_mark (job_id);
CREATE INDEX ix_target_job_id ON target (job_id);
CREATE INDEX ix_wall_limit_job_id ON wall_limit (job_id);
CREATE INDEX ix_photo_cut_id ON photo (cut_id);
CREATE INDEX ix_photo_job_id ON photo (job_id);
CREATE INDEX ix_station_cut_id ON station (cut_id);
CREATE INDEX ix_probe_point_traverse_id ON probe_point (traverse_id);
CREATE INDEX ix_traverse_cut_id ON traverse (cut_id);
CREATE INDEX ix_binned_job_id ON binned (job_id);
CREATE INDEX ix_chamber_job_id ON chamber (job_id);
CREATE INDEX ix_head_job_id ON head (job_id);
CREATE INDEX ix_my_lift_job_id ON my_lift (job_id);
CREATE INDEX ix_seat_job_id ON seat (job_id);
CREATE INDEX ix_swirl_wish_job_id ON swirl_wish (job_id);
CREATE INDEX ix_fault_port_id ON fault (port_id);
CREATE INDEX ix_tube_cut_id ON tube (cut_id);
CREATE INDEX ix_work_operation_id ON work (operation_id);
CREATE INDEX ix_correction_flow_run_id ON correction (flow_run_id);
CREATE INDEX ix_act_job_id ON act (job_id);
CREATE INDEX ix_pour_cut_id ON pour (cut_id);
CREATE INDEX ix_pour_chamber_id ON pour (chamber_id);
CREATE INDEX ix_cut_index_job_id ON cut_index (job_id);
CREATE INDEX ix_cut_index_section ON cut_index (section);
CREATE INDEX ix_cut_index_throat ON cut_index (throat);
CREATE INDEX ix_cut_index_valve ON cut_index (valve);
CREATE INDEX ix_cut_index_volume ON cut_index (volume);
CREATE INDEX ix_engine_result_job_id ON engine_result (job_id);
CREATE INDEX ix_stage_mark_job_id ON stage_mark (job_id);
CREATE INDEX ix_port_job_id ON port (job_id);
CREATE INDEX ix_cut_port_id ON cut (port_id);
CREATE INDEX ix_part_of_job_job_id ON part_of_job (job_id);
CREATE INDEX ix_wait_job_id ON wait (job_id);
CREATE INDEX ix_operation_cut_id ON operation (cut_id);
CREATE INDEX ix_face_job_id ON face (job_id);
CREATE INDEX ix_bolt_face_id ON bolt (face_id);
CREATE INDEX ix_outline_face_id ON outline (face_id);
CREATE INDEX ix_call_job_id ON call (job_id);
COMMIT;
