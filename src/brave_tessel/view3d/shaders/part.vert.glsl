#version 330 core
in vec3 in_position;   // metres, z up
in vec3 in_normal;
#ifndef SIDED
in vec3 in_uv;         // repeats times w, v up, and w
#endif
uniform mat4 view_projection;
uniform mat4 light_projection;
out vec3 position;
out vec3 normal;
out vec3 uvw;
out vec4 in_light;

void main() {
    position = in_position;
    normal = in_normal;
#ifdef SIDED
    uvw = vec3(0.0, 0.0, 1.0);
#else
    uvw = in_uv;
#endif
    in_light = light_projection * vec4(in_position, 1.0);
    gl_Position = view_projection * vec4(in_position, 1.0);
}
