#version 330 core
// Metallic-roughness as in glTF 2.0, Appendix B: GGX, height-correlated Smith, Schlick.
in vec3 position;
in vec3 normal;
in vec3 uvw;
in vec4 in_light;
uniform sampler2D base_colour;   // sRGB codes, decoded by the sampler
uniform sampler2D normal_map;
uniform sampler2D orm;
uniform sampler2D shadow_map;
uniform vec3 eye;
uniform vec3 sun;                // unit vector to the sun
uniform vec3 bare;
uniform bool textured;
uniform bool shadows;
uniform float shadow_slack;
uniform float exposure;
uniform int chequer;             // 1 shows squares of 100 mm instead
uniform vec2 repeat_m;
uniform sampler2D height_map;    // 0 lowest to 1 highest
uniform vec2 relief_m;           // lowest and highest above the skin, m; equal without parallax
#ifdef SIDED
uniform vec3 axes[3];            // a three-sided laying: where its sides look from
uniform vec3 frames[12];         // along and up of each side, seen from its near and its far side
uniform vec3 origin;
uniform float sharpness;
uniform float by_relief;
uniform vec4 finish;             // rows of the turn about the datum
uniform vec2 slide;
#endif
out vec4 colour;
vec2 uv;

const float PI = 3.14159265;

vec3 encode(vec3 c) {
    c = clamp(c, 0.0, 1.0);
    return mix(c * 12.92, 1.055 * pow(c, vec3(1.0 / 2.4)) - 0.055, step(0.0031308, c));
}

// Soft shoulder above 0.8 only, so that mid tones stay as they were made.
vec3 shoulder(vec3 c) {
    vec3 over = max(c - 0.8, 0.0);
    return min(c, 0.8) + 0.2 * over / (over + 0.2);
}

// Unit directions in which u and v grow on the skin.
void skin(vec3 n, out vec3 t, out vec3 b) {
    vec3 dp1 = dFdx(position), dp2 = dFdy(position);
    vec2 du1 = dFdx(uv), du2 = dFdy(uv);
    vec3 p2 = cross(dp2, n), p1 = cross(n, dp1);
    t = p2 * du1.x + p1 * du2.x;
    b = p2 * du1.y + p1 * du2.y;
    float scale = inversesqrt(max(max(dot(t, t), dot(b, b)), 1e-20));
    t *= scale; b *= scale;
}

vec3 mapped(vec3 n, vec3 t, vec3 b, vec2 place) {
    vec3 m = texture(normal_map, place).xyz * 2.0 - 1.0;
    return normalize(t * m.x + b * m.y + n * m.z);
}

// Where the eye's ray first meets the relief (parallax occlusion: steps down through it, then between the last two).
vec2 met(vec3 n, vec3 t, vec3 b, vec3 v) {
    vec3 along = vec3(dot(v, t) / repeat_m.x, dot(v, b) / repeat_m.y, max(dot(v, n), 0.12));
    vec2 slide = along.xy / along.z;
    vec2 gx = dFdx(uv), gy = dFdy(uv);
    const int STEPS = 40;
    float rise = (relief_m.y - relief_m.x) / float(STEPS), level = relief_m.y, before = 0.0;
    for (int k = 0; k <= STEPS; ++k) {
        float ground = mix(relief_m.x, relief_m.y, textureGrad(height_map, uv + slide * level, gx, gy).r);
        float over = level - ground;
        if (over <= 0.0) {
            float back = k == 0 ? 0.0 : rise * (-over) / max(before - over, 1e-6);
            return uv + slide * (level + back);
        }
        before = over;
        level -= rise;
    }
    return uv + slide * relief_m.x;
}

float lit_share() {
    if (!shadows) return 1.0;
    vec3 place = in_light.xyz / in_light.w * 0.5 + 0.5;
    if (place.x < 0.0 || place.x > 1.0 || place.y < 0.0 || place.y > 1.0 || place.z > 1.0) return 1.0;
    vec2 texel = 1.0 / vec2(textureSize(shadow_map, 0));
    float sum = 0.0;
    for (int x = -1; x <= 1; ++x)
        for (int y = -1; y <= 1; ++y)
            sum += place.z - shadow_slack > texture(shadow_map, place.xy + vec2(x, y) * texel * 1.5).r ? 0.0 : 1.0;
    return sum / 9.0;
}

struct Skin { vec3 base; vec3 packed_orm; vec3 n; };

#ifdef SIDED
// Each side is looked at by itself and counts by where the face looks; the higher surface wins where they meet.
Skin sided(vec3 n) {
    Skin found = Skin(vec3(0.0), vec3(0.0), vec3(0.0));
    float whole = 0.0;
    vec3 away = position - origin, bent = vec3(0.0);
    for (int side = 0; side < 3; ++side) {
        float facing = dot(axes[side], n);
        int far = side * 4 + (facing < 0.0 ? 2 : 0);
        vec3 along = frames[far], up = frames[far + 1];
        vec2 place = vec2(dot(along, away), dot(up, away)) - slide;
        place = vec2(dot(finish.xy, place), dot(finish.zw, place)) / repeat_m;
        float share = pow(abs(facing), sharpness);
        vec2 gx = dFdx(place), gy = dFdy(place);
        if (share < 1e-4) continue;
        vec3 base = textureGrad(base_colour, place, gx, gy).rgb;
        vec3 m = textureGrad(normal_map, place, gx, gy).xyz * 2.0 - 1.0;
        // Pale and raised go together often enough to stand for the height that is not uploaded here.
        share *= exp2(by_relief * 8.0 * (dot(base, vec3(0.2126, 0.7152, 0.0722)) - 0.3));
        vec3 t = normalize(finish.x * along + finish.y * up), b = normalize(finish.z * along + finish.w * up);
        found.base += share * base;
        found.packed_orm += share * textureGrad(orm, place, gx, gy).rgb;
        bent += share * (t * m.x + b * m.y + n * m.z);
        whole += share;
    }
    found.base /= whole; found.packed_orm /= whole;
    found.n = normalize(bent);
    return found;
}
#endif

void main() {
    vec3 v = normalize(eye - position);
    vec3 n = normalize(normal);
    if (!gl_FrontFacing) n = -n;
    vec3 face = n;
    vec3 base = bare;
    float occlusion = 1.0, roughness = 0.75, metal = 0.0;
    uv = uvw.xy / uvw.z;
#ifdef SIDED
    if (textured) {
        Skin found = sided(n);
        base = found.base; n = found.n;
        occlusion = found.packed_orm.r; roughness = max(found.packed_orm.g, 0.06); metal = found.packed_orm.b;
    }
    float strongest = 0.0;
    for (int side = 0; side < 3; ++side) {
        float facing = dot(axes[side], face);
        int far = side * 4 + (facing < 0.0 ? 2 : 0);
        vec2 place = vec2(dot(frames[far], position - origin), dot(frames[far + 1], position - origin)) - slide;
        if (abs(facing) > strongest) { strongest = abs(facing); uv = place / repeat_m; }
    }
#else
    if (textured && uvw.z > 1e-6) {
        vec3 t, b;
        skin(n, t, b);
        vec2 place = relief_m.y > relief_m.x ? met(n, t, b, v) : uv;
        base = texture(base_colour, place).rgb;
        vec3 packed_orm = texture(orm, place).rgb;
        occlusion = packed_orm.r; roughness = max(packed_orm.g, 0.06); metal = packed_orm.b;
        n = mapped(n, t, b, place);
    }
#endif
    if (chequer == 1) {
        vec2 cell = floor(uv * repeat_m * 10.0);
        base = mod(cell.x + cell.y, 2.0) < 1.0 ? vec3(0.55) : vec3(0.22);
        roughness = 0.9; metal = 0.0;
    }
    vec3 h = normalize(v + sun);
    float nl = max(dot(n, sun), 0.0), nv = max(dot(n, v), 1e-3), nh = max(dot(n, h), 0.0), vh = max(dot(v, h), 0.0);
    float a = roughness * roughness, a2 = a * a;
    float d = nh * nh * (a2 - 1.0) + 1.0;
    float ggx = a2 / (PI * d * d);
    float smith = 0.5 / (nl * sqrt(nv * nv * (1.0 - a2) + a2) + nv * sqrt(nl * nl * (1.0 - a2) + a2) + 1e-5);
    vec3 f0 = mix(vec3(0.04), base, metal);
    vec3 f = f0 + (1.0 - f0) * pow(1.0 - vh, 5.0);
    vec3 diffuse = base * (1.0 - metal);
    float share = dot(face, sun) > 0.0 ? lit_share() : 0.0;
    vec3 warm = vec3(1.0, 0.955, 0.88) * 2.9;
    vec3 direct = (diffuse / PI * (1.0 - f) + ggx * smith * f) * nl * warm * share;
    float up = n.z * 0.5 + 0.5;
    vec3 sky = mix(vec3(0.30, 0.285, 0.26), vec3(0.52, 0.56, 0.62), up);
    vec3 r = reflect(-v, n);
    vec3 mirrored = mix(vec3(0.22, 0.21, 0.2), vec3(0.66, 0.71, 0.78), smoothstep(-0.25, 0.5, r.z));
    vec3 edge = f0 + (max(vec3(1.0 - roughness), f0) - f0) * pow(1.0 - nv, 5.0);
    // Corners of the room gather less sky.
    vec3 ambient = (diffuse * sky + edge * mirrored * (1.0 - 0.6 * roughness)) * occlusion;
    vec3 total = (direct + ambient) * exposure;
    colour = vec4(encode(shoulder(total)), 1.0);
}
