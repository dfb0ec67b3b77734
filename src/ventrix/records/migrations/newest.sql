-- made by scripts/write_newest_schema.py from the migrations
CREATE TABLE alembic_version (
	version_num VARCHAR(32) NOT NULL, 
	CONSTRAINT alembic_version_pkc PRIMARY KEY (version_num)
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
CREATE INDEX ix_mount_job_id ON mount (job_id);
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
CREATE INDEX ix_setup_job_id ON setup (job_id);
CREATE TABLE valve (
	job_id VARCHAR NOT NULL, 
	name VARCHAR NOT NULL, 
	head_diameter DOUBLE, 
	stem_diameter DOUBLE, 
	seat_width DOUBLE, 
	seat_angle DOUBLE, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, seat_margin DOUBLE, seat_insert BOOLEAN, back_cut_angle DOUBLE, back_shape VARCHAR DEFAULT '' NOT NULL, weight DOUBLE, back_cut_width DOUBLE, metal VARCHAR DEFAULT '' NOT NULL, guide_clearance DOUBLE, lap_width DOUBLE, fitted_height DOUBLE, spring_height DOUBLE, coil_bind DOUBLE, seat_force DOUBLE, nose_force DOUBLE, 
	CONSTRAINT pk_valve PRIMARY KEY (id), 
	CONSTRAINT fk_valve_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE INDEX ix_valve_job_id ON valve (job_id);
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
CREATE INDEX ix_observation_cut_id ON observation (cut_id);
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
CREATE INDEX ix_trial_cut_id ON trial (cut_id);
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
CREATE INDEX ix_plate_check_bench_id ON plate_check (bench_id);
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
CREATE INDEX ix_scatter_study_bench_id ON scatter_study (bench_id);
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
CREATE INDEX ix_transfer_bench_id ON transfer (bench_id);
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
CREATE INDEX ix_study_reading_scatter_study_id ON study_reading (scatter_study_id);
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
CREATE INDEX ix_transfer_part_transfer_id ON transfer_part (transfer_id);
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
CREATE INDEX ix_rung_note_flow_run_id ON rung_note (flow_run_id);
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
CREATE INDEX ix_step_record_flow_run_id ON step_record (flow_run_id);
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
CREATE INDEX ix_reading_flow_run_id ON reading (flow_run_id);
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
CREATE INDEX ix_cam_point_job_id ON cam_point (job_id);
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
CREATE INDEX ix_check_mark_job_id ON check_mark (job_id);
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
CREATE INDEX ix_target_job_id ON target (job_id);
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
CREATE INDEX ix_photo_cut_id ON photo (cut_id);
CREATE INDEX ix_photo_job_id ON photo (job_id);
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
CREATE INDEX ix_station_cut_id ON station (cut_id);
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
CREATE INDEX ix_probe_point_traverse_id ON probe_point (traverse_id);
CREATE TABLE revision (
	owner VARCHAR NOT NULL, 
	number INTEGER NOT NULL, 
	CONSTRAINT pk_revision PRIMARY KEY (owner)
);
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
CREATE INDEX ix_binned_job_id ON binned (job_id);
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
CREATE INDEX ix_chamber_job_id ON chamber (job_id);
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
CREATE INDEX ix_head_job_id ON head (job_id);
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
CREATE INDEX ix_my_lift_job_id ON my_lift (job_id);
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
CREATE INDEX ix_seat_job_id ON seat (job_id);
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
CREATE INDEX ix_swirl_wish_job_id ON swirl_wish (job_id);
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
CREATE INDEX ix_fault_port_id ON fault (port_id);
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
	cut_id VARCHAR NOT NULL, work VARCHAR DEFAULT 'tubed' NOT NULL, 
	CONSTRAINT pk_tube PRIMARY KEY (id), 
	CONSTRAINT fk_tube_cut_id_cut FOREIGN KEY(cut_id) REFERENCES cut (id) ON DELETE CASCADE
);
CREATE INDEX ix_tube_cut_id ON tube (cut_id);
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
CREATE INDEX ix_work_operation_id ON work (operation_id);
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
CREATE INDEX ix_correction_flow_run_id ON correction (flow_run_id);
CREATE TABLE act (
	id VARCHAR NOT NULL, 
	job_id VARCHAR NOT NULL, 
	number INTEGER NOT NULL, 
	name VARCHAR NOT NULL, 
	changes JSON NOT NULL, 
	CONSTRAINT pk_act PRIMARY KEY (id), 
	CONSTRAINT fk_act_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE INDEX ix_act_job_id ON act (job_id);
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
CREATE INDEX ix_pour_cut_id ON pour (cut_id);
CREATE INDEX ix_pour_chamber_id ON pour (chamber_id);
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
CREATE INDEX ix_cut_index_job_id ON cut_index (job_id);
CREATE INDEX ix_cut_index_section ON cut_index (section);
CREATE INDEX ix_cut_index_throat ON cut_index (throat);
CREATE INDEX ix_cut_index_valve ON cut_index (valve);
CREATE INDEX ix_cut_index_volume ON cut_index (volume);
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
CREATE INDEX ix_engine_result_job_id ON engine_result (job_id);
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
	piece VARCHAR NOT NULL, faults_looked_at VARCHAR, 
	CONSTRAINT pk_port PRIMARY KEY (id), 
	CONSTRAINT fk_port_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE INDEX ix_port_job_id ON port (job_id);
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
	job_id VARCHAR NOT NULL, due VARCHAR, stage VARCHAR DEFAULT '' NOT NULL, 
	CONSTRAINT pk_part_of_job PRIMARY KEY (id), 
	CONSTRAINT fk_part_of_job_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE INDEX ix_part_of_job_job_id ON part_of_job (job_id);
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
CREATE INDEX ix_wait_job_id ON wait (job_id);
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
	beyond_quote BOOLEAN NOT NULL, at VARCHAR, 
	CONSTRAINT pk_operation PRIMARY KEY (id), 
	CONSTRAINT fk_operation_cut_id_cut FOREIGN KEY(cut_id) REFERENCES cut (id) ON DELETE CASCADE
);
CREATE INDEX ix_operation_cut_id ON operation (cut_id);
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
CREATE INDEX ix_face_job_id ON face (job_id);
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
CREATE INDEX ix_bolt_face_id ON bolt (face_id);
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
CREATE INDEX ix_outline_face_id ON outline (face_id);
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
CREATE INDEX ix_call_job_id ON call (job_id);
CREATE TABLE slip (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	date VARCHAR, 
	kind VARCHAR NOT NULL, 
	place VARCHAR NOT NULL, 
	side VARCHAR, 
	from_hour DOUBLE, 
	to_hour DOUBLE, 
	depth DOUBLE, 
	width_left DOUBLE, 
	volume DOUBLE, 
	photo VARCHAR NOT NULL, 
	decision VARCHAR NOT NULL, 
	decided_by VARCHAR NOT NULL, 
	customer_told BOOLEAN NOT NULL, 
	note VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	port_id VARCHAR NOT NULL, 
	CONSTRAINT pk_slip PRIMARY KEY (id), 
	CONSTRAINT fk_slip_port_id_port FOREIGN KEY(port_id) REFERENCES port (id) ON DELETE CASCADE
);
CREATE INDEX ix_slip_port_id ON slip (port_id);
CREATE TABLE "bench" (
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
	extra JSON NOT NULL, 
	element_place VARCHAR, 
	leak_taken_off BOOLEAN DEFAULT '0', 
	easy_dial DOUBLE, 
	easy_factor DOUBLE, 
	easy_leak DOUBLE, 
	reading_step DOUBLE, 
	fixed_column DOUBLE, 
	CONSTRAINT pk_bench PRIMARY KEY (id)
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
	expected_as VARCHAR NOT NULL, 
	expected_lift DOUBLE, 
	CONSTRAINT pk_cut PRIMARY KEY (id), 
	CONSTRAINT fk_cut_port_id_port FOREIGN KEY(port_id) REFERENCES port (id) ON DELETE CASCADE
);
CREATE INDEX ix_cut_port_id ON cut (port_id);
CREATE TABLE "flow_run" (
	cut_id VARCHAR, 
	trial_id VARCHAR, 
	setup_id VARCHAR NOT NULL, 
	mount_id VARCHAR, 
	date VARCHAR, 
	source VARCHAR NOT NULL, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	witness_id VARCHAR, 
	claimed VARCHAR, 
	stands_for_port_ids JSON DEFAULT '[]' NOT NULL, 
	basis VARCHAR NOT NULL, 
	house VARCHAR NOT NULL, 
	paper_date VARCHAR, 
	CONSTRAINT pk_flow_run PRIMARY KEY (id), 
	CONSTRAINT fk_flow_run_setup_id_setup FOREIGN KEY(setup_id) REFERENCES setup (id), 
	CONSTRAINT fk_flow_run_trial_id_trial FOREIGN KEY(trial_id) REFERENCES trial (id) ON DELETE CASCADE, 
	CONSTRAINT fk_flow_run_cut_id_cut FOREIGN KEY(cut_id) REFERENCES cut (id) ON DELETE CASCADE, 
	CONSTRAINT fk_flow_run_mount_id_mount FOREIGN KEY(mount_id) REFERENCES mount (id)
);
CREATE INDEX ix_flow_run_cut_id ON flow_run (cut_id);
CREATE INDEX ix_flow_run_trial_id ON flow_run (trial_id);
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
	stages JSON NOT NULL, 
	practice VARCHAR DEFAULT ('') NOT NULL, 
	engine_cylinders INTEGER, 
	engine_layout VARCHAR, 
	bank_half_angle DOUBLE, 
	gasket_thickness DOUBLE, 
	deck_clearance DOUBLE, 
	piston_volume DOUBLE, 
	model_port_ids JSON NOT NULL, 
	same_house JSON NOT NULL, 
	CONSTRAINT pk_job PRIMARY KEY (id)
);
CREATE TABLE "stage_mark" (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	stage VARCHAR NOT NULL, 
	port_id VARCHAR NOT NULL, 
	closed_by VARCHAR NOT NULL, 
	date VARCHAR, 
	position INTEGER NOT NULL, 
	job_id VARCHAR NOT NULL, 
	unit VARCHAR NOT NULL, 
	"of" VARCHAR NOT NULL, 
	"by" VARCHAR NOT NULL, 
	started_at VARCHAR, 
	ended_at VARCHAR, 
	CONSTRAINT pk_stage_mark PRIMARY KEY (id), 
	CONSTRAINT fk_stage_mark_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE INDEX ix_stage_mark_job_id ON stage_mark (job_id);
CREATE TABLE "traverse" (
	cut_id VARCHAR NOT NULL, 
	station VARCHAR NOT NULL, 
	setup_id VARCHAR, 
	lift DOUBLE, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	kind VARCHAR DEFAULT 'pitot' NOT NULL, 
	layout VARCHAR DEFAULT ('') NOT NULL, 
	mount_id VARCHAR, 
	probe VARCHAR DEFAULT ('') NOT NULL, 
	coefficient DOUBLE, 
	base_flow DOUBLE, 
	date VARCHAR, 
	probe_diameter DOUBLE, 
	speeds_at VARCHAR NOT NULL, 
	CONSTRAINT pk_traverse PRIMARY KEY (id), 
	CONSTRAINT fk_traverse_mount_id_mount FOREIGN KEY(mount_id) REFERENCES mount (id), 
	CONSTRAINT fk_traverse_setup_id_setup FOREIGN KEY(setup_id) REFERENCES setup (id), 
	CONSTRAINT fk_traverse_cut_id_cut FOREIGN KEY(cut_id) REFERENCES cut (id) ON DELETE CASCADE
);
CREATE INDEX ix_traverse_cut_id ON traverse (cut_id);
CREATE TABLE "wall_limit" (
	job_id VARCHAR NOT NULL, 
	place VARCHAR DEFAULT ('') NOT NULL, 
	thickness DOUBLE NOT NULL, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	kind VARCHAR NOT NULL, 
	behind VARCHAR NOT NULL, 
	CONSTRAINT pk_wall_limit PRIMARY KEY (id), 
	CONSTRAINT fk_wall_limit_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE INDEX ix_wall_limit_job_id ON wall_limit (job_id);
CREATE TABLE "wall_reading" (
	cut_id VARCHAR NOT NULL, 
	place VARCHAR NOT NULL, 
	thickness DOUBLE NOT NULL, 
	date VARCHAR, 
	note VARCHAR NOT NULL, 
	id VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	extra JSON NOT NULL, 
	band VARCHAR, 
	along DOUBLE, 
	across DOUBLE DEFAULT '0' NOT NULL, 
	behind VARCHAR DEFAULT ('') NOT NULL, 
	probe VARCHAR DEFAULT ('') NOT NULL, 
	sound_speed DOUBLE, 
	uncertainty DOUBLE, 
	struck VARCHAR, 
	behind_port_id VARCHAR, 
	at VARCHAR, 
	known_by VARCHAR NOT NULL, 
	CONSTRAINT pk_wall_reading PRIMARY KEY (id), 
	CONSTRAINT fk_wall_reading_cut_id_cut FOREIGN KEY(cut_id) REFERENCES cut (id) ON DELETE CASCADE
);
CREATE INDEX ix_wall_reading_cut_id ON wall_reading (cut_id);
CREATE TABLE scan (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	file VARCHAR NOT NULL, 
	unit VARCHAR NOT NULL, 
	known VARCHAR NOT NULL, 
	guide_bore DOUBLE, 
	seat_at_far_end BOOLEAN NOT NULL, 
	date VARCHAR, 
	note VARCHAR NOT NULL, 
	position INTEGER NOT NULL, 
	cut_id VARCHAR NOT NULL, face_at JSON DEFAULT '[]' NOT NULL, seat_at JSON DEFAULT '[]' NOT NULL, held_against VARCHAR DEFAULT '' NOT NULL, taken_volume DOUBLE, taken_uncertainty DOUBLE, least_told DOUBLE, 
	CONSTRAINT pk_scan PRIMARY KEY (id), 
	CONSTRAINT fk_scan_cut_id_cut FOREIGN KEY(cut_id) REFERENCES cut (id) ON DELETE CASCADE
);
CREATE INDEX ix_scan_cut_id ON scan (cut_id);
CREATE TABLE fit_limit (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	what VARCHAR NOT NULL, 
	kind VARCHAR NOT NULL, 
	metal VARCHAR NOT NULL, 
	low DOUBLE, 
	high DOUBLE, 
	position INTEGER NOT NULL, 
	job_id VARCHAR NOT NULL, 
	CONSTRAINT pk_fit_limit PRIMARY KEY (id), 
	CONSTRAINT fk_fit_limit_job_id_job FOREIGN KEY(job_id) REFERENCES job (id) ON DELETE CASCADE
);
CREATE INDEX ix_fit_limit_job_id ON fit_limit (job_id);
CREATE TABLE scanned_depth (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	place VARCHAR NOT NULL, 
	side VARCHAR NOT NULL, 
	depth DOUBLE, 
	uncertainty DOUBLE, 
	position INTEGER NOT NULL, 
	scan_id VARCHAR NOT NULL, 
	CONSTRAINT pk_scanned_depth PRIMARY KEY (id), 
	CONSTRAINT fk_scanned_depth_scan_id_scan FOREIGN KEY(scan_id) REFERENCES scan (id) ON DELETE CASCADE
);
CREATE INDEX ix_scanned_depth_scan_id ON scanned_depth (scan_id);
CREATE TABLE scanned_size (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	name VARCHAR NOT NULL, 
	size DOUBLE, 
	uncertainty DOUBLE, 
	position INTEGER NOT NULL, 
	scan_id VARCHAR NOT NULL, 
	CONSTRAINT pk_scanned_size PRIMARY KEY (id), 
	CONSTRAINT fk_scanned_size_scan_id_scan FOREIGN KEY(scan_id) REFERENCES scan (id) ON DELETE CASCADE
);
CREATE INDEX ix_scanned_size_scan_id ON scanned_size (scan_id);
CREATE TABLE scanned_strip (
	id VARCHAR NOT NULL, 
	extra JSON NOT NULL, 
	along DOUBLE NOT NULL, 
	"left" DOUBLE, 
	roof DOUBLE, 
	"right" DOUBLE, 
	floor DOUBLE, 
	position INTEGER NOT NULL, 
	scan_id VARCHAR NOT NULL, 
	CONSTRAINT pk_scanned_strip PRIMARY KEY (id), 
	CONSTRAINT fk_scanned_strip_scan_id_scan FOREIGN KEY(scan_id) REFERENCES scan (id) ON DELETE CASCADE
);
CREATE INDEX ix_scanned_strip_scan_id ON scanned_strip (scan_id);
INSERT INTO alembic_version VALUES ('0015');
