#version 400 core
in vec3 in_position;   // metres, z up
in vec3 in_normal;
in vec3 in_uv;         // repeats times w, v up, and w
in vec3 in_lift;       // which way the corner goes for one unit of height
out vec3 c_position;
out vec3 c_normal;
out vec3 c_uvw;
out vec3 c_lift;

void main() {
    c_position = in_position;
    c_normal = in_normal;
    c_uvw = in_uv;
    c_lift = in_lift;
}
